import { guestApi } from '$lib/api/client';
import { must } from '$lib/api/problem';
import { forGuest } from '$lib/guest/loading';
import { speak } from '$lib/words/say.svelte';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  const asked = guestApi.GET('/api/public/desks/{desk}', { params: { path: { desk: params.desk } } });
  const desk = await forGuest(must(asked), 'missing.desk');
  await speak('');
  return { desk };
};
