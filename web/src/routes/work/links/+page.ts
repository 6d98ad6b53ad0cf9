import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { Schemas } from '$lib/api/client';
import { states } from '$lib/links/words';
import type { PageLoad } from './$types';

const AT_ONCE = 50;

export const load: PageLoad = ({ url }) =>
  forScreen(async () => {
    const asked = url.searchParams.get('state') ?? '';
    const state = asked in states ? (asked as Schemas['LinkState']) : undefined;
    const search = url.searchParams.get('search') ?? '';
    const skip = Math.max(0, Number(url.searchParams.get('skip') ?? 0) || 0);
    const links = await must(
      api.GET('/api/links', {
        params: { query: { ...(state ? { state } : {}), ...(search ? { search } : {}), skip, take: AT_ONCE } },
      }),
    );
    return { links, state, search, skip, atOnce: AT_ONCE };
  });
