import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = () =>
  forScreen(async () => {
    const [fields, imports] = await Promise.all([
      must(api.GET('/api/guests/fields')),
      must(api.GET('/api/guests/imports')),
    ]);
    return { fields, imports };
  });
