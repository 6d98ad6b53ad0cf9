import { Temporal } from 'temporal-polyfill';
import { api, type Schemas } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { asked, filterIn } from '$lib/bookings/filter';
import { dateIn } from '$lib/time/format';
import type { PageLoad } from './$types';

const MOST_RUNS = 10;

/** What is half typed, as the year 0002, is no day of ours. */
function isDay(text: string): boolean {
  return /^(19|20|21)\d\d-\d\d-\d\d$/.test(text) && !Number.isNaN(Date.parse(text));
}

/** The day, or the week from Monday, of what the list was chosen by; whatever stands then, past or to come. */
export const load: PageLoad = ({ url, parent }) =>
  forScreen(async () => {
    const { me } = await parent();
    const days = url.searchParams.get('days') === '1' ? 1 : 7;
    const typed = url.searchParams.get('day') ?? '';
    const day = Temporal.PlainDate.from(isDay(typed) ? typed : dateIn(me.now, me.zone));
    const from = days === 1 ? day : day.subtract({ days: day.dayOfWeek - 1 });
    const to = from.add({ days: days - 1 });
    const filter = filterIn(url.searchParams);
    const query = asked({
      ...filter,
      when: 'all',
      order: 'soonest',
      from: from.toString(),
      to: to.toString(),
    });
    const rows: Schemas['BookingRow'][] = [];
    let after: string | null = null;
    for (let run = 0; run === 0 || (after !== null && run < MOST_RUNS); run++) {
      const list: Schemas['BookingList'] = await must(
        api.GET('/api/bookings', { params: { query: { ...query, take: 100, ...(after === null ? {} : { after }) } } }),
      );
      rows.push(...list.rows);
      ({ after } = list);
    }
    return { filter, rows, days, from: from.toString(), to: to.toString(), isWhole: after === null };
  });
