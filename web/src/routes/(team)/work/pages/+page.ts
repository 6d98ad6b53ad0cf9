import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { placeIn } from '$lib/ui/listPlace';
import type { PageLoad } from './$types';

/** What is shown is in the address, so that it can be reloaded and sent on. */
export const load: PageLoad = ({ url }) =>
  forScreen(async () => {
    const asked = url.searchParams;
    const [kind, search, archived] = [
      asked.get('kind') ?? '',
      asked.get('search') ?? '',
      asked.get('archived') !== null,
    ];
    const query = { kind: kind || undefined, search: search || undefined, archived, ...placeIn(asked) };
    const [pages, desks] = await Promise.all([
      must(api.GET('/api/pages', { params: { query } })),
      must(api.GET('/api/desks')),
    ]);
    return { pages, desks, kind, search, archived };
  });
