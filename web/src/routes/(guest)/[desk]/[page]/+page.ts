import { error, redirect } from '@sveltejs/kit';
import { guestApi } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import { speak } from '$lib/words/say.svelte';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params, url }) => {
  const secret = url.searchParams.get('for');
  const path = { desk: params.desk, page: params.page };
  const page = await must(
    guestApi.GET('/api/public/desks/{desk}/pages/{page}', {
      params: { path, query: secret === null ? {} : { for: secret } },
    }),
  ).catch((thrown: unknown) => {
    const problem = problemOf(thrown);
    error(
      problem.status === 404 ? 404 : 503,
      problem.status === 404 ? 'No page is published here' : problem.title.replace(/\.$/, ''),
    );
  });
  // An address that the page had before leads to where it is now.
  if (page.path !== `/${path.desk}/${path.page}`) redirect(308, page.path + url.search);
  await speak(page.language);
  return { path, page };
};
