import { error } from '@sveltejs/kit';
import { guestApi } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import { speak } from '$lib/words/say.svelte';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params, url }) => {
  const { address } = params;
  const link = await must(guestApi.GET('/api/public/links/{address}', { params: { path: { address } } })).catch(
    (thrown: unknown) => {
      const problem = problemOf(thrown);
      error(
        problem.status === 404 ? 404 : 503,
        problem.status === 404 ? 'No times are offered here' : problem.title.replace(/\.$/, ''),
      );
    },
  );
  await speak(link.page.language);
  return { address, link, at: url.searchParams.get('at') ?? undefined };
};
