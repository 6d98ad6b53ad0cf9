import { error, redirect } from '@sveltejs/kit';
import { api } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import { setClock } from '$lib/time/format';
import type { LayoutLoad } from './$types';

export const load: LayoutLoad = async ({ url }) => {
  try {
    const me = await must(api.GET('/api/me'));
    setClock(me.clock);
    return { me };
  } catch (thrown) {
    const problem = problemOf(thrown);
    if (problem.status === 401) redirect(307, `/sign-in?back=${encodeURIComponent(url.pathname)}`);
    error(503, problem.title.replace(/\.$/, ''));
  }
};
