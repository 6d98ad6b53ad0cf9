import { Temporal } from 'temporal-polyfill';

const weekdays = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'];
const months = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
];
/** Of a name so many letters tell which it is. */
const ENOUGH = 3;

/** The place of the name that begins so, from 0; -1 where none does, or too little is typed. */
const named = (names: string[], typed: string): number =>
  typed.length < ENOUGH ? -1 : names.findIndex((name) => name.startsWith(typed));

function dateOf(year: number, month: number, day: number): Temporal.PlainDate | undefined {
  try {
    return Temporal.PlainDate.from({ year, month, day }, { overflow: 'reject' });
  } catch {
    return undefined;
  }
}

/** A day without a year is the one nearest to today. */
function nearest(month: number, day: number, today: Temporal.PlainDate): Temporal.PlainDate | undefined {
  return [today.year - 1, today.year, today.year + 1]
    .map((year) => dateOf(year, month, day))
    .filter((date) => date !== undefined)
    .sort((one, other) => Math.abs(today.until(one).days) - Math.abs(today.until(other).days))[0];
}

/**
 * The day that is meant by "tue", "8 dec", "dec 8 2027", "8.12." or "tomorrow"; undefined where it is none. A weekday
 * is the next of that name, today's included.
 *
 * @param today The local date now.
 */
export function dayOf(typed: string, today: string): string | undefined {
  const now = Temporal.PlainDate.from(today);
  const text = typed.trim().toLowerCase().replace(/,/g, ' ').replace(/\s+/g, ' ');
  const near = { today: 0, tomorrow: 1, yesterday: -1 }[text];
  if (near !== undefined) return now.add({ days: near }).toString();
  const weekday = named(weekdays, text);
  if (weekday >= 0) return now.add({ days: (weekday + 1 - now.dayOfWeek + 7) % 7 }).toString();
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text);
  if (iso) return dateOf(Number(iso[1]), Number(iso[2]), Number(iso[3]))?.toString();
  const dotted = /^(\d{1,2})\.\s?(\d{1,2})\.?(?:\s?(\d{4}))?$/.exec(text);
  if (dotted) return dayIn(Number(dotted[2]), Number(dotted[1]), dotted[3], now);
  const worded = /^(?:(\d{1,2})\.? ([a-z]+)|([a-z]+) (\d{1,2}))(?: (\d{4}))?$/.exec(text);
  const month = worded ? named(months, worded[2] ?? worded[3] ?? '') + 1 : 0;
  if (worded && month > 0) return dayIn(month, Number(worded[1] ?? worded[4]), worded[5], now);
  return undefined;
}

function dayIn(month: number, day: number, year: string | undefined, now: Temporal.PlainDate): string | undefined {
  return (year === undefined ? nearest(month, day, now) : dateOf(Number(year), month, day))?.toString();
}
