import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ parent }) =>
  forScreen(async () => {
    const { me } = await parent();
    const [people, hosts, hours, load, invitations, record] = await Promise.all([
      must(api.GET('/api/people')),
      must(api.GET('/api/hosts')),
      must(api.GET('/api/hours')),
      must(api.GET('/api/load', { params: { query: { weeks: 6 } } })),
      me.isOwner ? must(api.GET('/api/invitations')) : [],
      must(api.GET('/api/record')),
    ]);
    return { people, hosts, hours, load, invitations, record };
  });
