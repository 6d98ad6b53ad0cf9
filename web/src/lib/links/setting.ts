import { api } from '$lib/api/client';
import { must } from '$lib/api/problem';

/** What a link's screen needs besides the link. */
export async function loadLinkSetting() {
  const [hosts, desks, calendars, usual] = await Promise.all([
    must(api.GET('/api/hosts')),
    must(api.GET('/api/desks')),
    must(api.GET('/api/calendars')),
    must(api.GET('/api/usual')),
  ]);
  return { hosts, desks, calendars, usual };
}

export type LinkSetting = Awaited<ReturnType<typeof loadLinkSetting>>;
