import type { Schemas } from '$lib/api/client';

type Day = Schemas['SupplyDay'];

/**
 * A run of the day, in minutes after midnight, in which openings follow one another. `gained` where it comes with
 * unsaved changes.
 */
export interface Bar {
  from: number;
  to: number;
  gained: boolean;
}

/**
 * The openings of a day as bars: those that touch or overlap are one, but what is gained by a change stays apart from
 * what was there.
 */
export function barsOf(day: Day, before: ReadonlySet<string> | undefined): Bar[] {
  const bars: Bar[] = [];
  for (const opening of day.openings) {
    const gained = before !== undefined && !before.has(opening.start);
    const last = bars.findLast((bar) => bar.gained === gained);
    if (last && last.to >= opening.fromMinute && bars.at(-1) === last) last.to = Math.max(last.to, opening.toMinute);
    else bars.push({ from: opening.fromMinute, to: opening.toMinute, gained });
  }
  return bars;
}

/** What a change takes of a day: the runs of openings that were there before and are not now. */
export function lostOf(day: Day, was: Day | undefined): Bar[] {
  if (!was) return [];
  const still = new Set(day.openings.map((opening) => opening.start));
  return barsOf({ ...was, openings: was.openings.filter((opening) => !still.has(opening.start)) }, undefined);
}

/** The runs of a day's axis in which nothing starts or lasts, around a minute of the day. */
export function darkAround(
  day: Day,
  axis: { from: number; to: number },
  minute: number,
): { from: number; to: number } | undefined {
  const bars = barsOf(day, undefined);
  if (bars.some((bar) => bar.from <= minute && minute < bar.to)) return undefined;
  return {
    from: Math.max(axis.from, ...bars.filter((bar) => bar.to <= minute).map((bar) => bar.to)),
    to: Math.min(axis.to, ...bars.filter((bar) => bar.from > minute).map((bar) => bar.from)),
  };
}

export function startsOf(supply: Schemas['SupplyAnswer']): Set<string> {
  return new Set(supply.days.flatMap((day) => day.openings.map((opening) => opening.start)));
}

/**
 * How a changed supply differs from the one before, on the days up to the last one that both have: one that begins
 * later ends later, too.
 */
export function difference(
  before: Schemas['SupplyAnswer'],
  after: Schemas['SupplyAnswer'],
): { gained: number; lost: number } {
  const ends = [before, after].map((supply) => supply.days.at(-1)?.date ?? '').sort();
  const upTo = (supply: Schemas['SupplyAnswer']): Set<string> =>
    startsOf({ ...supply, days: supply.days.filter((day) => day.date <= (ends[0] ?? '')) });
  const [was, is] = [upTo(before), upTo(after)];
  return {
    gained: [...is].filter((start) => !was.has(start)).length,
    lost: [...was].filter((start) => !is.has(start)).length,
  };
}

/** The hours of the day that lanes have to show, whole hours, from 8 to 18 at the least. */
export function axisOf(days: readonly Day[]): { from: number; to: number } {
  const openings = days.flatMap((day) => day.openings);
  const from = Math.min(8 * 60, ...openings.map((opening) => opening.fromMinute));
  const to = Math.max(18 * 60, ...openings.map((opening) => opening.toMinute));
  return { from: Math.floor(from / 60) * 60, to: Math.min(Math.ceil(to / 60) * 60, 24 * 60) };
}
