import { Temporal } from 'temporal-polyfill';
import { minuteText } from '$lib/lanes/spans';

/** How many minutes a clock is ahead of another at noon of a date by the first. */
export function minutesAhead(zone: string, other: string, date: string): number {
  const noon = Temporal.PlainDate.from(date).toZonedDateTime({ timeZone: zone, plainTime: '12:00' });
  return (noon.withTimeZone(other).offsetNanoseconds - noon.offsetNanoseconds) / 60_000_000_000;
}

/** What another clock shows at a minute of the day: "16", "16:30", and "+1" or "−1" where it is another day there. */
export function besideLabel(minute: number, ahead: number): string {
  const there = minute + ahead;
  const inDay = ((there % 1440) + 1440) % 1440;
  const text = inDay % 60 === 0 ? String(inDay / 60) : minuteText(inDay);
  return there < 0 ? `${text} −1` : there >= 1440 ? `${text} +1` : text;
}

/** "7 h ahead", "3 h 30 behind", "the same time". */
export function aheadInWords(ahead: number): string {
  if (ahead === 0) return 'the same time';
  const [hours, minutes] = [Math.floor(Math.abs(ahead) / 60), Math.abs(ahead) % 60];
  const length = `${hours > 0 ? `${hours} h` : ''}${hours > 0 && minutes > 0 ? ' ' : ''}${minutes > 0 ? (hours > 0 ? minutes : `${minutes} min`) : ''}`;
  return `${length} ${ahead > 0 ? 'ahead' : 'behind'}`;
}
