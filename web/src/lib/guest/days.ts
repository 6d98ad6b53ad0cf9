import type { Schemas } from '$lib/api/client';
import { mondayOf, plusDays } from '$lib/time/dates';
import { wallClock } from '$lib/time/offsets';

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

const DAY = 86_400_000;
const AFTERNOON = 12;
const EVENING = 17;

export function partOf(hour: number): Part {
  if (hour < AFTERNOON) return 'morning';
  return hour < EVENING ? 'afternoon' : 'evening';
}

export function shownIn(zone: string, openings: readonly Schemas['Opening'][]): ShownOpening[] {
  // A phone shows thousands; many lie on one day.
  let [day, date] = [NaN, ''];
  return openings.map((opening) => {
    const local = wallClock(opening.start, zone);
    const its = Math.floor(local.getTime() / DAY);
    if (its !== day) [day, date] = [its, local.toISOString().slice(0, 10)];
    return { ...opening, date, part: partOf(local.getUTCHours()) };
  });
}

/** Whether two answers offer the same. */
export function areSame(one: readonly Schemas['Opening'][], other: readonly Schemas['Opening'][] | undefined): boolean {
  return (
    one.length === other?.length &&
    one.every((opening, at) => {
      const its = other[at];
      return its?.start === opening.start && its.end === opening.end && its.placesLeft === opening.placesLeft;
    })
  );
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
  const weeks: Week[] = [];
  for (let date = first; date <= last; date = plusDays(date, 1)) {
    const monday = mondayOf(date);
    const week = weeks.at(-1);
    if (week?.monday === monday) week.dates.push(date);
    else weeks.push({ monday, dates: [date] });
  }
  return weeks;
}

/** The seven dates of a week. */
export function datesOf(monday: string): string[] {
  return Array.from({ length: 7 }, (_, day) => plusDays(monday, day));
}
