import { plusDays } from '$lib/time/dates';

/** The longest run of days asked for in one go. */
const MOST_DAYS = 120;

/** The dates to ask for, both included: from the first, as far as is offered and can be asked at once. */
export function rangeOf(firstDate: string, lastDate: string): { from: string; to: string } {
  const most = plusDays(firstDate, MOST_DAYS - 1);
  return { from: firstDate, to: most < lastDate ? most : lastDate };
}
