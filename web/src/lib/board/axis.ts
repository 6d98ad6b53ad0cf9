import type { Schemas } from '$lib/api/client';

/** The part of the day a board shows, in minutes after midnight. */
export interface Axis {
  from: number;
  to: number;
}

/** Whole hours around everybody's hours and bookings, 8 to 18 at the least; what lies in calendars outside them widens nothing. */
export function hoursOf(board: Schemas['BoardAnswer'], hosts: ReadonlySet<string>): Axis {
  let from = 8 * 60;
  let to = 18 * 60;
  for (const lane of board.days.flatMap((day) => day.lanes)) {
    if (!hosts.has(lane.hostId)) continue;
    for (const bar of lane.bars) {
      if (bar.kind !== 'hours' && bar.kind !== 'booked') continue;
      from = Math.min(from, bar.fromMinute);
      to = Math.max(to, bar.toMinute);
    }
  }
  return { from: Math.floor(from / 60) * 60, to: Math.ceil(to / 60) * 60 };
}

export function hourMarks(axis: Axis): number[] {
  return Array.from({ length: (axis.to - axis.from) / 60 + 1 }, (_, hour) => axis.from + hour * 60);
}

export function placeOn(axis: Axis, from: number, to: number): string {
  const length = axis.to - axis.from;
  const [left, right] = [Math.max(from, axis.from), Math.min(to, axis.to)];
  const start = ((left - axis.from) / length) * 100;
  return right > left ? `left: ${start}%; width: ${((right - left) / length) * 100}%` : `left: ${start}%`;
}

export function labelOf(bar: Schemas['BoardBar']): string {
  return bar.kind === 'hours' ? '' : bar.title;
}
