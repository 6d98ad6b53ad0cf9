import { sameClock } from './clock';
import { dateIn, dayName, timeOf } from './format';

/**
 * An instant by another clock, with its day where that is another there: "18:00", "Wed 9, 01:00". Undefined where both
 * clocks show the same then.
 */
export function byOtherClock(start: string, here: string, there: string): string | undefined {
  if (sameClock(here, there, start)) return undefined;
  const date = dateIn(start, there);
  const time = timeOf(start, there);
  return date === dateIn(start, here) ? time : `${dayName(date)}, ${time}`;
}
