import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { placeIn } from '$lib/ui/listPlace';
import type { PageLoad } from './$types';

/** What is shown is in the address, so that it can be reloaded and sent on. */
export const load: PageLoad = ({ url }) =>
  forScreen(async () => {
    const when = url.searchParams.get('when') ?? 'upcoming';
    const [past, cancelled] = [when === 'past', when === 'cancelled'];
    const search = url.searchParams.get('search') ?? '';
    const place = placeIn(url.searchParams);
    const query = { past, cancelled, search: search || undefined, ...place };
    return {
      past,
      cancelled,
      search,
      place,
      bookings: await must(api.GET('/api/bookings', { params: { query } })),
    };
  });
