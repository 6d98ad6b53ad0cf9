import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';
import { zoneAt } from '$lib/time/offsets';

export const parts = ['morning', 'afternoon', 'evening'] as const;
export type Part = (typeof parts)[number];

/** An opening where the reader sees it: on a local date and in a part of the day of the zone that is shown. */
export interface ShownOpening {
  start: string;
  end: string;
  placesLeft: number;
  date: string;
  part: Part;
}

const AFTERNOON = 12;
const EVENING = 17;

export function partOf(hour: number): Part {
  if (hour < AFTERNOON) return 'morning';
  return hour < EVENING ? 'afternoon' : 'evening';
}

export function shownIn(zone: string, openings: readonly Schemas['Opening'][]): ShownOpening[] {
  return openings.map((opening) => {
    const local = Temporal.Instant.from(opening.start).toZonedDateTimeISO(zoneAt(opening.start, zone));
    return { ...opening, date: local.toPlainDate().toString(), part: partOf(local.hour) };
  });
}

export function byDate(openings: readonly ShownOpening[]): Map<string, ShownOpening[]> {
  const days = new Map<string, ShownOpening[]>();
  for (const opening of openings) {
    const day = days.get(opening.date);
    if (day) day.push(opening);
    else days.set(opening.date, [opening]);
  }
  return days;
}

/** A week from Monday, with the dates of it that lie in the run that is offered. */
export interface Week {
  monday: string;
  dates: string[];
}

export function weeksBetween(first: string, last: string): Week[] {
  const end = Temporal.PlainDate.from(last);
  const weeks: Week[] = [];
  for (
    let date = Temporal.PlainDate.from(first);
    Temporal.PlainDate.compare(date, end) <= 0;
    date = date.add({ days: 1 })
  ) {
    const monday = date.subtract({ days: date.dayOfWeek - 1 }).toString();
    const week = weeks.at(-1);
    if (week?.monday === monday) week.dates.push(date.toString());
    else weeks.push({ monday, dates: [date.toString()] });
  }
  return weeks;
}

/** The seven dates of a week. */
export function datesOf(monday: string): string[] {
  const first = Temporal.PlainDate.from(monday);
  return Array.from({ length: 7 }, (_, day) => first.add({ days: day }).toString());
}
