import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { usualUntil } from '$lib/letters/writing';
import { dateIn } from '$lib/time/format';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params: { id }, parent }) => {
  const { me } = await parent();
  return forScreen(async () => {
    const [guest, letters, all, hosts] = await Promise.all([
      must(api.GET('/api/guests/{id}', { params: { path: { id } } })),
      must(api.GET('/api/letters')),
      must(api.GET('/api/letters/choices', { params: { query: { guest: id } } })),
      must(api.GET('/api/hosts')),
    ]);
    const today = dateIn(me.now, me.zone);
    return { guest, letters, all, hosts, today, usualUntil: usualUntil(today) };
  });
};
