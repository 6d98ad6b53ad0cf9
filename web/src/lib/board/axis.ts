import type { Schemas } from '$lib/api/client';
import { DAY, type Axis } from '$lib/lanes/spans';

/**
 * Whole hours around everybody's hours, blocks and bookings, 8 to 18 at the least; what lies in calendars outside them
 * widens nothing.
 */
export function hoursOf(board: Schemas['BoardAnswer'], hosts: ReadonlySet<string>): Axis {
  let from = 8 * 60;
  let to = 18 * 60;
  for (const lane of board.days.flatMap((day) => day.lanes)) {
    if (!hosts.has(lane.hostId)) continue;
    for (const bar of lane.bars) {
      // A room that is always open needs no night shown.
      const isAllDay = bar.kind === 'hours' && bar.fromMinute === 0 && bar.toMinute === DAY;
      if (isAllDay) continue;
      if (bar.kind !== 'hours' && bar.kind !== 'block' && bar.kind !== 'booked') continue;
      from = Math.min(from, bar.fromMinute);
      to = Math.max(to, bar.toMinute);
    }
  }
  return { from: Math.floor(from / 60) * 60, to: Math.ceil(to / 60) * 60 };
}
