import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { loadSetting } from '$lib/pages/setting';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ params }) =>
  forScreen(async () => {
    const [page, record, setting] = await Promise.all([
      must(api.GET('/api/pages/{id}', { params: { path: { id: params.id } } })),
      must(api.GET('/api/record', { params: { query: { subject: params.id } } })),
      loadSetting(),
    ]);
    return { page, record, ...setting };
  });
