import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = () =>
  forScreen(async () => {
    const [pages, desks] = await Promise.all([must(api.GET('/api/pages')), must(api.GET('/api/desks'))]);
    return { pages, desks };
  });
