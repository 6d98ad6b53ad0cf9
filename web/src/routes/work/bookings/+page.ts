import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

const AT_ONCE = 50;

/** What is shown is in the address, so that it can be reloaded and sent on. */
export const load: PageLoad = ({ url }) =>
  forScreen(async () => {
    const when = url.searchParams.get('when') ?? 'upcoming';
    const [past, cancelled] = [when === 'past', when === 'cancelled'];
    const search = url.searchParams.get('search') ?? '';
    const skip = Math.max(0, Number(url.searchParams.get('skip') ?? '0') || 0);
    const query = { past, cancelled, search: search || undefined, skip, take: AT_ONCE };
    return {
      past,
      cancelled,
      search,
      skip,
      atOnce: AT_ONCE,
      bookings: await must(api.GET('/api/bookings', { params: { query } })),
    };
  });
