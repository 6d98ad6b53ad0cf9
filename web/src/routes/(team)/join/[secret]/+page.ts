import { error } from '@sveltejs/kit';
import { api } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  try {
    return {
      secret: params.secret,
      invitation: await must(api.GET('/api/join/{secret}', { params: { path: { secret: params.secret } } })),
    };
  } catch (thrown) {
    const problem = problemOf(thrown);
    error(
      problem.status >= 400 ? problem.status : 503,
      problem.status === 404 ? 'No invitation has this link' : problem.title.replace(/\.$/, ''),
    );
  }
};
