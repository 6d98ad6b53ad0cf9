import { Temporal } from 'temporal-polyfill';
import { DAY, type MinuteSpan } from '$lib/lanes/spans';

/** Hours between which nobody wants an appointment: from 21 to 7 on their own clock. */
const EVENING = 21;
const MORNING = 7;
const STEP = 15;

/** Whether an instant falls in the night of a zone. */
export function isNight(at: string | Temporal.Instant, zone: string): boolean {
  const { hour } = Temporal.Instant.from(at.toString()).toZonedDateTimeISO(zone);
  return hour >= EVENING || hour < MORNING;
}

/** The runs of a date, in minutes on the wall clock of a zone, in which it is night in another. */
export function nightsOn(date: string, zone: string, other: string): MinuteSpan[] {
  const midnight = Temporal.PlainDate.from(date).toPlainDateTime();
  const runs: MinuteSpan[] = [];
  for (let minute = 0; minute < DAY; minute += STEP) {
    if (!isNight(midnight.add({ minutes: minute }).toZonedDateTime(zone).toInstant(), other)) continue;
    const last = runs.at(-1);
    if (last?.to === minute) last.to += STEP;
    else runs.push({ from: minute, to: minute + STEP });
  }
  return runs;
}
