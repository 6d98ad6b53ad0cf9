import { error } from '@sveltejs/kit';
import { api } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  try {
    const { email } = await must(
      api.GET('/api/sign-up/links/{secret}', { params: { path: { secret: params.secret } } }),
    );
    return { link: { secret: params.secret, email } };
  } catch (thrown) {
    const problem = problemOf(thrown);
    error(
      problem.status >= 400 ? problem.status : 503,
      problem.status === 404 ? 'This link leads nowhere' : problem.title.replace(/\.$/, ''),
    );
  }
};
