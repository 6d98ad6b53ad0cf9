import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { dateIn } from '$lib/time/format';
import type { PageLoad } from './$types';

const DAYS = 14;

export const load: PageLoad = ({ url, parent }) =>
  forScreen(async () => {
    const { me } = await parent();
    const today = dateIn(me.now, me.zone);
    const from = url.searchParams.get('from') ?? today;
    const hidden = new Set(url.searchParams.getAll('hide'));
    const [board, calendars] = await Promise.all([must(api.GET('/api/board', { params: { query: { from, days: DAYS } } })), must(api.GET('/api/calendars'))]);
    return { today, from, hidden, days: DAYS, board, calendars };
  });
