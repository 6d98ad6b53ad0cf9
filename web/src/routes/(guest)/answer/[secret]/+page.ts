import { error } from '@sveltejs/kit';
import { guestApi } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  try {
    return {
      secret: params.secret,
      asked: await must(guestApi.GET('/api/public/answers/{secret}', { params: { path: { secret: params.secret } } })),
    };
  } catch (thrown) {
    const problem = problemOf(thrown);
    error(
      problem.status === 404 ? 404 : 503,
      problem.status === 404 ? 'No request has this address' : problem.title.replace(/\.$/, ''),
    );
  }
};
