import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';
import type { BoardPiece } from '$lib/board/pieces';
import { DAY, minuteText } from '$lib/lanes/spans';

type Offer = Schemas['Offer'];
type Painted = Schemas['PaintedTime'];

/** A place on the board: a date and minutes of its wall clock. */
export interface Place {
  date: string;
  from: number;
  to: number;
}

/** Where an instant stands on the wall clock of a zone. */
export function placeOf(start: string, minutes: number, zone: string): Place {
  const local = Temporal.Instant.from(start).toZonedDateTimeISO(zone);
  const from = local.hour * 60 + local.minute;
  return { date: local.toPlainDate().toString(), from, to: Math.min(from + minutes, DAY) };
}

/**
 * The instant of a minute of a date on the wall clock of a zone. A time that a clock skips is taken as if it had not;
 * one that comes twice, the first time.
 */
export function startAt(date: string, minute: number, zone: string): string {
  const local = Temporal.PlainDate.from(date).toPlainDateTime().add({ minutes: minute });
  return local.toZonedDateTime(zone).toInstant().toString({ smallestUnit: 'second' });
}

/** The starts of appointments that fit into a stretch, one after the other; the first in any case. */
export function startsWithin(span: { from: number; to: number }, minutes: number): number[] {
  const starts = [span.from];
  for (let at = span.from + minutes; at + minutes <= span.to; at += minutes) starts.push(at);
  return starts;
}

/** Painted time on one date, of those that come again each week too. */
export function paintedOn(painted: readonly Painted[], date: string): { at: number; from: number; to: number }[] {
  const day = Temporal.PlainDate.from(date);
  return painted.flatMap((paint, at) => {
    const start = Temporal.PlainDateTime.from(paint.start);
    const apart = start.toPlainDate().until(day, { largestUnit: 'days' }).days;
    const isHere = apart === 0 || (paint.isWeekly && apart > 0 && apart % 7 === 0);
    const from = start.hour * 60 + start.minute;
    return isHere ? [{ at, from, to: Math.min(from + paint.minutes, DAY) }] : [];
  });
}

interface Shown {
  offer: Offer;
  minutes: number;
  zone: string;
  hostIds: readonly string[];
  dates: readonly string[];
  openings: readonly Schemas['Opening'][];
  missed: ReadonlyMap<string, unknown>;
  /** By start, the hosts on whose calendars a time is held. */
  held: ReadonlyMap<string, readonly string[]>;
  wishes: readonly Schemas['WishView'][];
  /** Of a pool, by start, the hosts who can serve it; empty where all of them serve every opening. */
  servedBy: ReadonlyMap<string, readonly string[]>;
}

/** All pieces of a link's board: what is offered, in the lane of each host, and what its guest wishes. */
export function piecesOfLink({
  offer,
  minutes,
  zone,
  hostIds,
  dates,
  openings,
  missed,
  held,
  wishes,
  servedBy,
}: Shown): BoardPiece[] {
  const isShown = new Set(dates);
  const pieces: BoardPiece[] = [];
  const put = (
    key: string,
    place: Place,
    piece: Pick<BoardPiece, 'label' | 'tone'> & { text: string },
    lanes: readonly string[] = hostIds,
  ): void => {
    if (!isShown.has(place.date) || place.to <= place.from) return;
    for (const [lane, hostId] of lanes.entries())
      pieces.push({
        key: `${key}|${hostId}`,
        hostId,
        date: place.date,
        from: place.from,
        to: place.to,
        label: piece.label,
        tone: piece.tone,
        ...(lane === 0 ? { text: piece.text } : {}),
      });
  };

  if (offer.by === 'painted') {
    for (const date of dates)
      for (const paint of paintedOn(offer.painted, date))
        put(
          `paint:${String(paint.at)}:${date}`,
          { date, ...paint },
          { label: offer.painted[paint.at]?.isWeekly ? 'painted each week' : 'painted', tone: 'frame', text: '' },
        );
  }
  if (offer.by === 'picked') {
    for (const start of offer.picked) {
      const place = placeOf(start, minutes, zone);
      const holders = held.get(start);
      const [label, tone] = missed.has(start)
        ? (['picked, but not open', 'missed'] as const)
        : holders
          ? (['offered and held', 'kept'] as const)
          : (['offered', 'pick'] as const);
      put(
        `pick:${start}`,
        place,
        { label, tone, text: clock(place.from) },
        holders ?? (missed.has(start) ? hostIds : (servedBy.get(start) ?? hostIds)),
      );
    }
  } else {
    for (const opening of openings)
      put(
        `open:${opening.start}`,
        placeOf(opening.start, minutes, zone),
        { label: 'open', tone: 'open', text: '' },
        servedBy.get(opening.start) ?? hostIds,
      );
  }
  for (const wish of wishes) {
    const length = Math.round((Date.parse(wish.end) - Date.parse(wish.start)) / 60_000);
    put(`wish:${wish.id}`, placeOf(wish.start, length, zone), {
      label: 'wished by the guest',
      tone: 'wish',
      text: '?',
    });
  }
  return pieces;
}

/** What a piece of the board stands for. */
export function readKey(key: string): { kind: string; rest: string } {
  const [whole = ''] = key.split('|');
  const at = whole.indexOf(':');
  return { kind: whole.slice(0, at), rest: whole.slice(at + 1) };
}

/** "9:15". */
function clock(minute: number): string {
  return minuteText(minute).replace(/^0/, '');
}

/** The dates worth a row: those on which a host is open or has something, or that something is offered on. */
export function worthShowing(board: Schemas['BoardAnswer'], offered: ReadonlySet<string>): string[] {
  return board.days
    .filter(
      (day) =>
        offered.has(day.date) ||
        day.lanes.some((lane) =>
          lane.bars.some(
            (bar) => bar.kind === 'hours' || bar.kind === 'booked' || bar.kind === 'held' || bar.kind === 'offered',
          ),
        ),
    )
    .map((day) => day.date);
}
