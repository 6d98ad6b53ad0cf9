import { guestApi } from '$lib/api/client';
import { must } from '$lib/api/problem';
import { forGuest } from '$lib/guest/loading';
import { setClock } from '$lib/time/format';
import { speak } from '$lib/words/say.svelte';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params, url }) => {
  const { address } = params;
  const asked = guestApi.GET('/api/public/links/{address}', { params: { path: { address } } });
  const link = await forGuest(must(asked), 'missing.link');
  await speak(link.page.language);
  setClock(link.page.clock ?? undefined);
  return { address, link, at: url.searchParams.get('at') ?? undefined };
};
