import { error } from '@sveltejs/kit';
import { guestApi } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import { speak } from '$lib/words/say.svelte';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  try {
    const desk = await must(guestApi.GET('/api/public/desks/{desk}', { params: { path: { desk: params.desk } } }));
    await speak('');
    return { desk };
  } catch (thrown) {
    const problem = problemOf(thrown);
    error(
      problem.status === 404 ? 404 : 503,
      problem.status === 404 ? 'No desk has this address' : problem.title.replace(/\.$/, ''),
    );
  }
};
