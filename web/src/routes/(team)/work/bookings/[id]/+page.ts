import { error } from '@sveltejs/kit';
import { api } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  try {
    return { detail: await must(api.GET('/api/bookings/{id}', { params: { path: { id: params.id } } })) };
  } catch (thrown) {
    const problem = problemOf(thrown);
    error(
      problem.status === 404 ? 404 : 503,
      problem.status === 404 ? 'There is no such booking' : problem.title.replace(/\.$/, ''),
    );
  }
};
