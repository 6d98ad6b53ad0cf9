import { error } from '@sveltejs/kit';
import { api } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import type { PageLoad } from './$types';

/** Fetched once a visit: what is typed must not be replaced by what a colleague saves meanwhile; saving tells of that. */
export const load: PageLoad = async ({ params }) => {
  try {
    return { page: await must(api.GET('/api/pages/{id}', { params: { path: { id: params.id } } })) };
  } catch (thrown) {
    const problem = problemOf(thrown);
    error(problem.status === 404 ? 404 : 503, problem.title.replace(/\.$/, ''));
  }
};
