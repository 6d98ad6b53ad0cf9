import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ params: { id } }) =>
  forScreen(async () => ({ mailing: await must(api.GET('/api/mailings/{id}', { params: { path: { id } } })) }));
