import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';
import type { MinuteSpan } from '$lib/lanes/spans';

/** A stretch of a day on the board. */
export interface DaySpan extends MinuteSpan {
  date: string;
}

/** How far from an opening a bar may be dropped that is meant for it, in minutes. */
const REACH = 30;

/** Where an opening lies on the board; what goes over midnight ends there. */
export function placeOf(opening: Pick<Schemas['Opening'], 'start' | 'end'>, zone: string): DaySpan {
  const from = Temporal.Instant.from(opening.start).toZonedDateTimeISO(zone);
  const minutes = from.hour * 60 + from.minute;
  const length = (Date.parse(opening.end) - Date.parse(opening.start)) / 60_000;
  return { date: from.toPlainDate().toString(), from: minutes, to: Math.min(minutes + length, 24 * 60) };
}

/** The opening that is meant where a bar is dropped; undefined where there is none near. */
export function openingAt<T extends { start: string; end: string }>(
  openings: readonly T[],
  zone: string,
  date: string,
  minute: number,
): T | undefined {
  const near = openings
    .map((opening) => ({ opening, place: placeOf(opening, zone) }))
    .filter(({ place }) => place.date === date && Math.abs(place.from - minute) <= REACH)
    .sort((a, b) => Math.abs(a.place.from - minute) - Math.abs(b.place.from - minute));
  return near[0]?.opening;
}

/** The next opening after an instant, or the one before it. */
export function stepFrom<T extends { start: string }>(
  openings: readonly T[],
  start: string,
  by: 1 | -1,
): T | undefined {
  const at = Date.parse(start);
  return by > 0
    ? openings.find((opening) => Date.parse(opening.start) > at)
    : openings.findLast((opening) => Date.parse(opening.start) < at);
}

/** The booking that a bar of the board leads to; undefined where it leads to something else. */
export function bookingAt(path: string): string | undefined {
  return /^\/work\/bookings\/([0-9a-f-]{36})$/.exec(path)?.[1];
}
