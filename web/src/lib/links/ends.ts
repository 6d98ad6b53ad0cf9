import { Temporal } from 'temporal-polyfill';

const FRIDAY = 5;

/**
 * Ends that are ready to press: the Friday of this week, of the next and of the one after it, and the month's last day.
 */
export function readyEnds(from: string): string[] {
  const first = Temporal.PlainDate.from(from);
  const friday = first.add({ days: (FRIDAY - first.dayOfWeek + 7) % 7 });
  const ends = [friday, friday.add({ days: 7 }), friday.add({ days: 14 }), first.with({ day: first.daysInMonth })];
  return [...new Set(ends.map(String))].sort();
}
