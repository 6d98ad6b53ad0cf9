import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ params }) =>
  forScreen(async () => {
    const [hours, hosts] = await Promise.all([
      must(api.GET('/api/hours/{id}', { params: { path: { id: params.id } } })),
      must(api.GET('/api/hosts')),
    ]);
    return { hours, hosts };
  });
