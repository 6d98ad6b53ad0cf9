import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = () =>
  forScreen(async () => {
    const [run, profile, hosts, hours, desks, calendars, pages, usual] = await Promise.all([
      must(api.GET('/api/first-run')),
      must(api.GET('/api/me/profile')),
      must(api.GET('/api/hosts')),
      must(api.GET('/api/hours')),
      must(api.GET('/api/desks')),
      must(api.GET('/api/calendars')),
      must(api.GET('/api/pages')),
      must(api.GET('/api/usual')),
    ]);
    return { run, profile, hosts, hours, desks, calendars, pages, usual };
  });
