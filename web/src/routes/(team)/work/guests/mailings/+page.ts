import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { placeIn } from '$lib/ui/listPlace';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ url }) =>
  forScreen(async () => ({
    mailings: await must(api.GET('/api/mailings', { params: { query: placeIn(url.searchParams) } })),
  }));
