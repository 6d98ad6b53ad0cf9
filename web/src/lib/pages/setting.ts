import { api } from '$lib/api/client';
import { must } from '$lib/api/problem';

/** What a page's editor needs besides the page: whose time can be booked, under which desks, by which calendars. */
export async function loadSetting() {
  const [hosts, desks, calendars, usual, tokens, pages, guestFields] = await Promise.all([
    must(api.GET('/api/hosts')),
    must(api.GET('/api/desks')),
    must(api.GET('/api/calendars')),
    must(api.GET('/api/usual')),
    must(api.GET('/api/post-tokens')),
    must(api.GET('/api/pages/names')),
    must(api.GET('/api/guests/fields')),
  ]);
  return { hosts, desks, calendars, usual, tokens, pages, guestFields };
}
