import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = () =>
  forScreen(async () => {
    const [desks, hosts] = await Promise.all([must(api.GET('/api/desks')), must(api.GET('/api/hosts'))]);
    return { desks, hosts };
  });
