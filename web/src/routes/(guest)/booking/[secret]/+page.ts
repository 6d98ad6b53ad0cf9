import { error } from '@sveltejs/kit';
import { guestApi } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  try {
    const path = { secret: params.secret };
    return { secret: params.secret, booking: await must(guestApi.GET('/api/public/bookings/{secret}', { params: { path } })) };
  } catch (thrown) {
    const problem = problemOf(thrown);
    error(problem.status === 404 ? 404 : 503, problem.status === 404 ? 'No booking has this link' : problem.title.replace(/\.$/, ''));
  }
};
