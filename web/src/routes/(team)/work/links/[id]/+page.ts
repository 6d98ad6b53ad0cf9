import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { loadLinkSetting } from '$lib/links/setting';
import { dateIn } from '$lib/time/format';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ params, parent }) =>
  forScreen(async () => {
    const { me } = await parent();
    const [link, setting, beginnings] = await Promise.all([
      must(api.GET('/api/links/{id}', { params: { path: { id: params.id } } })),
      loadLinkSetting(),
      must(api.GET('/api/links/beginnings')),
    ]);
    return {
      link,
      ...setting,
      known: beginnings.guests,
      lately: beginnings.last.durations,
      today: dateIn(me.now, link.form.times.zone),
    };
  });
