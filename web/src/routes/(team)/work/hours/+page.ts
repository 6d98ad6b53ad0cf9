import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = () =>
  forScreen(async () => {
    const [hours, hosts] = await Promise.all([must(api.GET('/api/hours')), must(api.GET('/api/hosts'))]);
    return { hours, hosts };
  });
