import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { dateIn } from '$lib/time/format';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ url, parent }) =>
  forScreen(async () => {
    const { me } = await parent();
    const today = dateIn(me.now, me.zone);
    const asked = url.searchParams;
    const hosts = await must(api.GET('/api/hosts'));
    const known = new Set(hosts.map((host) => host.id));
    const from = asked.get('from') ?? today;
    return {
      today,
      hosts,
      away: asked.getAll('host').filter((id) => known.has(id)),
      from,
      to: asked.get('to') ?? from,
    };
  });
