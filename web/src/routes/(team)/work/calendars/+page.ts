import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = () =>
  forScreen(async () => {
    const [hosts, calendars] = await Promise.all([must(api.GET('/api/hosts')), must(api.GET('/api/calendars'))]);
    return { hosts, calendars };
  });
