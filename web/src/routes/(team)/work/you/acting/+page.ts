import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = () =>
  forScreen(async () => {
    const [grants, record] = await Promise.all([must(api.GET('/api/me/acting')), must(api.GET('/api/me/record'))]);
    return { grants, record };
  });
