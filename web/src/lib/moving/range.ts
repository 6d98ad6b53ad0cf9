import { Temporal } from 'temporal-polyfill';

/** The longest run of days asked for in one go. */
const MOST_DAYS = 120;

/** The dates to ask for, both included: from the first, as far as is offered and can be asked at once. */
export function rangeOf(firstDate: string, lastDate: string): { from: string; to: string } {
  const most = Temporal.PlainDate.from(firstDate)
    .add({ days: MOST_DAYS - 1 })
    .toString();
  return { from: firstDate, to: most < lastDate ? most : lastDate };
}
