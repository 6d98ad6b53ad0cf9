import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';
import { dayMonth, shortWeekday } from '$lib/time/format';
import { dayInWords, weekdays, type WeekdayKey } from './week';

export type Change = Schemas['DatedChangeDocument'];

/** "Thu 24 Dec", "24 Dec to 3 Jan", "all Wednesdays from 2 Dec to 24 Feb". */
export function datesInWords(change: Change): string {
  if (change.from === change.to) return `${shortWeekday(change.from)} ${dayMonth(change.from)}`;
  if (!change.weekdays) return `${dayMonth(change.from)} to ${dayMonth(change.to)}`;
  const names = weekdays.filter((day) => change.weekdays?.includes(day.key)).map((day) => `${day.name}s`);
  const listed = names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1) ?? ''}`;
  return `all ${listed} from ${dayMonth(change.from)} to ${dayMonth(change.to)}`;
}

/** "closed, Yule" or "09:00–12:00, Stocktaking". */
export function changeInWords(change: Change): string {
  return [dayInWords(change.open), change.name ?? ''].filter((part) => part !== '').join(', ');
}

function keyOf(date: Temporal.PlainDate): WeekdayKey {
  return weekdays[date.dayOfWeek - 1]?.key ?? 'mon';
}

export function covers(change: Change, date: string): boolean {
  return (
    change.from <= date &&
    date <= change.to &&
    (!change.weekdays || change.weekdays.includes(keyOf(Temporal.PlainDate.from(date))))
  );
}

/**
 * A run of changed dates on a strip of days, by day from the strip's first. Of changes that meet, the last listed
 * counts.
 */
export interface StripRun {
  day: number;
  length: number;
  index: number;
  closed: boolean;
}

/** The changed dates of a year from a date on. */
export function runsOfYear(changes: readonly Change[], from: string, days: number): StripRun[] {
  const first = Temporal.PlainDate.from(from);
  const runs: StripRun[] = [];
  for (let day = 0; day < days; day++) {
    const date = first.add({ days: day }).toString();
    const index = changes.findLastIndex((change) => covers(change, date));
    const change = changes[index];
    if (!change) continue;
    const last = runs.at(-1);
    if (last && last.index === index && last.day + last.length === day) last.length++;
    else runs.push({ day, length: 1, index, closed: change.open.length === 0 });
  }
  return runs;
}

/** "Hull survey: 12 fewer in the next 4 weeks". */
export function effectInWords(effect: Schemas['PageEffect']): string {
  const parts = [
    effect.gained > 0 ? `${effect.gained} more` : '',
    effect.lost > 0 ? `${effect.lost} fewer` : '',
  ].filter((part) => part !== '');
  return `${effect.title}: ${parts.length === 0 ? 'no change' : parts.join(' and ')} in the next 4 weeks`;
}
