import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';
import { joined, type Axis, type MinuteSpan } from '$lib/lanes/spans';
import { plusDays } from '$lib/time/dates';
import { dateIn } from '$lib/time/format';
import type { Taken } from '../taken';

/** How many stretches can be sent. */
export const MOST = 40;

/** What a guest marked, by local date of the zone that is shown: runs that neither meet nor touch, by start. */
export type Marked = Readonly<Record<string, readonly MinuteSpan[]>>;

type Asks = Schemas['AskedOfGuest'];

/** The local dates of a zone on which something of what is offered lies, and no past ones. */
export function datesOf(asks: Pick<Asks, 'earliest' | 'latest'>, zone: string, now: number): string[] {
  const last = dateIn(Date.parse(asks.latest) - 1_000, zone);
  const dates: string[] = [];
  for (let date = dateIn(Math.max(Date.parse(asks.earliest), now), zone); date <= last; date = plusDays(date, 1))
    dates.push(date);
  return dates;
}

/**
 * The hours that lanes show: those of the offer, by the clock of the zone that is shown. Where they lie over midnight
 * there, the whole day.
 */
export function axisOf(asks: Pick<Asks, 'from' | 'fromMinute' | 'toMinute'>, pageZone: string, zone: string): Axis {
  const start = Temporal.PlainDate.from(asks.from).toPlainDateTime();
  const minuteAt = (minute: number): number => {
    const there = start.add({ minutes: minute }).toZonedDateTime(pageZone).withTimeZone(zone);
    return there.hour * 60 + there.minute;
  };
  const from = Math.floor(minuteAt(asks.fromMinute) / 60) * 60;
  const to = Math.ceil(minuteAt(asks.toMinute) / 60) * 60;
  return to > from && asks.toMinute - asks.fromMinute < 1440 ? { from, to } : { from: 0, to: 1440 };
}

/** With one more run on a date, less what is taken there. */
export function added(marked: Marked, date: string, span: MinuteSpan, taken: readonly MinuteSpan[]): Marked {
  return { ...marked, [date]: joined([...(marked[date] ?? []), ...without([span], taken)]) };
}

/** Runs less what is taken. */
export function without(spans: readonly MinuteSpan[], taken: readonly MinuteSpan[]): MinuteSpan[] {
  return taken.reduce<MinuteSpan[]>(
    (left, one) =>
      left.flatMap((span) =>
        one.to <= span.from || span.to <= one.from
          ? [span]
          : [
              { from: span.from, to: one.from },
              { from: one.to, to: span.to },
            ].filter((rest) => rest.to > rest.from),
      ),
    spans.map((span) => ({ ...span })),
  );
}

/** Without the run of a date that begins at a minute. */
export function removed(marked: Marked, date: string, from: number): Marked {
  return { ...marked, [date]: (marked[date] ?? []).filter((span) => span.from !== from) };
}

/** A run taken from where it was to somewhere else, perhaps of another date. */
export function changed(
  marked: Marked,
  was: { date: string; from: number },
  now: { date: string; span: MinuteSpan },
  taken: readonly MinuteSpan[],
): Marked {
  return added(removed(marked, was.date, was.from), now.date, now.span, taken);
}

export function countOf(marked: Marked): number {
  return Object.values(marked).reduce((count, spans) => count + spans.length, 0);
}

/** What a guest's calendar has taken on a local date. */
export function takenOn(taken: readonly Taken[], date: string, zone: string): (MinuteSpan & { title: string })[] {
  const day = Temporal.PlainDate.from(date);
  const [start, end] = [day, day.add({ days: 1 })].map((at) => at.toZonedDateTime(zone).epochMilliseconds) as [
    number,
    number,
  ];
  const minuteOf = (at: number): number => {
    if (at <= start) return 0;
    if (at >= end) return 1440;
    const there = Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone);
    return there.hour * 60 + there.minute;
  };
  return taken
    .filter((one) => one.from < end && start < one.to)
    .map((one) => ({ from: minuteOf(one.from), to: minuteOf(one.to), title: one.title }))
    .filter((one) => one.to > one.from);
}

/** A stretch as it is sent, with where it stands on the screen. */
export interface Stretch {
  start: string;
  end: string;
  date: string;
  span: MinuteSpan;
}

/** All that is marked as instants, by start. What a clock skips is none: a run of that alone is left out. */
export function stretchesOf(marked: Marked, zone: string): Stretch[] {
  const at = (date: string, minute: number): string =>
    Temporal.PlainDate.from(date)
      .toPlainDateTime()
      .add({ minutes: minute })
      .toZonedDateTime(zone)
      .toInstant()
      .toString({ smallestUnit: 'second' });
  return Object.entries(marked)
    .flatMap(([date, spans]) =>
      spans.map((span) => ({ date, span, start: at(date, span.from), end: at(date, span.to) })),
    )
    .filter((one) => one.start < one.end)
    .sort((one, other) => (one.start < other.start ? -1 : 1));
}

const PREFIX = 'guest:suits:';

/** Keeps what is marked for as long as the tab is open. It never leaves the browser until it is sent. */
export function keepStretches(
  address: string,
  stretches: readonly Stretch[],
  store: Pick<Storage, 'setItem'> = sessionStorage,
): void {
  try {
    store.setItem(PREFIX + address, JSON.stringify(stretches.map(({ start, end }) => ({ start, end }))));
  } catch {
    // A browser may keep nothing, or refuse.
  }
}

/** What was marked in this tab before it was loaded anew, without what is over. */
export function keptStretches(
  address: string,
  now: number,
  store: Pick<Storage, 'getItem'> = sessionStorage,
): Schemas['SuitedStretch'][] {
  try {
    const kept: unknown = JSON.parse(store.getItem(PREFIX + address) ?? '[]');
    return Array.isArray(kept) ? kept.filter(isStretch).filter((one) => Date.parse(one.end) > now) : [];
  } catch {
    return [];
  }
}

function isStretch(value: unknown): value is Schemas['SuitedStretch'] {
  if (typeof value !== 'object' || value === null) return false;
  const { start, end } = value as Partial<Record<'start' | 'end', unknown>>;
  return typeof start === 'string' && typeof end === 'string' && !isNaN(Date.parse(start)) && !isNaN(Date.parse(end));
}

/** The same instants by the clock of another zone; a stretch over midnight there becomes two. */
export function inZone(stretches: readonly Schemas['SuitedStretch'][], zone: string): Marked {
  let marked: Marked = {};
  for (const { start, end } of stretches) {
    let from = Temporal.Instant.from(start).toZonedDateTimeISO(zone);
    const to = Temporal.Instant.from(end).toZonedDateTimeISO(zone);
    while (Temporal.ZonedDateTime.compare(from, to) < 0) {
      const midnight = from.toPlainDate().add({ days: 1 }).toZonedDateTime(zone);
      const until = Temporal.ZonedDateTime.compare(midnight, to) < 0 ? midnight : to;
      const minute = (at: Temporal.ZonedDateTime): number => at.hour * 60 + at.minute;
      marked = added(
        marked,
        from.toPlainDate().toString(),
        { from: minute(from), to: until === midnight || minute(until) === 0 ? 1440 : minute(until) },
        [],
      );
      from = until;
    }
  }
  return marked;
}
