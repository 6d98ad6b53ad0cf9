import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { filterIn } from '$lib/guests/filter';
import { usualUntil } from '$lib/letters/writing';
import { dateIn } from '$lib/time/format';
import type { PageLoad } from './$types';

/** It begins with the guests of a choice, where the address has one (`from=list`). */
export const load: PageLoad = async ({ url, parent }) => {
  const { me } = await parent();
  return forScreen(async () => {
    const [begun, letters, all, hosts, views] = await Promise.all([
      url.searchParams.get('from') === 'list'
        ? must(api.POST('/api/mailings/guests', { body: filterIn(url.searchParams) }))
        : undefined,
      must(api.GET('/api/letters')),
      must(api.GET('/api/letters/choices')),
      must(api.GET('/api/hosts')),
      must(api.GET('/api/guests/views')),
    ]);
    const today = dateIn(me.now, me.zone);
    return { begun, letters, all, hosts, views, today, usualUntil: usualUntil(today) };
  });
};
