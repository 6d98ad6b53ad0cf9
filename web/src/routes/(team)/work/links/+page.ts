import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { Schemas } from '$lib/api/client';
import { states } from '$lib/links/words';
import { placeIn } from '$lib/ui/listPlace';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ url }) =>
  forScreen(async () => {
    const asked = url.searchParams.get('state') ?? '';
    const state = asked in states ? (asked as Schemas['LinkState']) : undefined;
    const search = url.searchParams.get('search') ?? '';
    const place = placeIn(url.searchParams);
    const links = await must(
      api.GET('/api/links', {
        params: { query: { ...(state ? { state } : {}), ...(search ? { search } : {}), ...place } },
      }),
    );
    return { links, state, search, place };
  });
