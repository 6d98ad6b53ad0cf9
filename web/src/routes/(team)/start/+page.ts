import { error } from '@sveltejs/kit';
import { api } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = async () => {
  try {
    return { byMail: (await must(api.GET('/api/sign-up'))).byMail };
  } catch (thrown) {
    error(503, problemOf(thrown).title.replace(/\.$/, ''));
  }
};
