import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { lanesIn } from '$lib/board/lanes';
import { must } from '$lib/api/problem';
import { dateIn } from '$lib/time/format';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ url, parent }) =>
  forScreen(async () => {
    const { me } = await parent();
    const today = dateIn(me.now, me.zone);
    const asked = url.searchParams;
    const from = asked.get('from') ?? today;
    const weeks = Math.min(Math.max(Number(asked.get('weeks') ?? 2) || 2, 1), 8);
    const [together, beside] = [asked.get('together'), asked.get('beside') ?? undefined];
    const [hosts, desks, usual] = await Promise.all([
      must(api.GET('/api/hosts')),
      must(api.GET('/api/desks')),
      must(api.GET('/api/usual')),
    ]);
    // People first, then rooms and things.
    hosts.sort((a, b) => Number(a.kind !== 'person') - Number(b.kind !== 'person'));
    const { shown: host, isMany } = lanesIn(asked, hosts, me.hostId);
    const board =
      host.length === 0
        ? undefined
        : await must(api.GET('/api/board', { params: { query: { from, days: weeks * 7, host, zone: me.zone } } }));
    const lane: 'all' | 'any' | undefined = together === 'all' || together === 'any' ? together : undefined;
    return { today, from, weeks, together: lane, beside, shown: host, isMany, hosts, desks, usual, board };
  });
