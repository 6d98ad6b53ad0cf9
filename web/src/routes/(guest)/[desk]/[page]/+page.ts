import { error } from '@sveltejs/kit';
import { guestApi } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  const path = { desk: params.desk, page: params.page };
  try {
    return { path, page: await must(guestApi.GET('/api/public/desks/{desk}/pages/{page}', { params: { path } })) };
  } catch (thrown) {
    const problem = problemOf(thrown);
    error(problem.status === 404 ? 404 : 503, problem.status === 404 ? 'No page is published here' : problem.title.replace(/\.$/, ''));
  }
};
