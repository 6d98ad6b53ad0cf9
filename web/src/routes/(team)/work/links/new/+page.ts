import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { blankLink, forGuestOf, fromLink, fromPage, withHosts, type LinkForm, type Setting } from '$lib/links/form';
import { loadLinkSetting } from '$lib/links/setting';
import { dateIn, dayMonth } from '$lib/time/format';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ url, parent }) =>
  forScreen(async () => {
    const { me } = await parent();
    const asked = url.searchParams;
    const [setting, beginnings] = await Promise.all([loadLinkSetting(), must(api.GET('/api/links/beginnings'))]);
    const today = dateIn(me.now, me.workspaceZone);
    const { last } = beginnings;
    const from: Setting = {
      today,
      zone: me.workspaceZone,
      // The looks of the desk used last, unless it began from a page.
      deskId: setting.desks.find((desk) => desk.id === last.deskId)?.id ?? setting.desks[0]?.id ?? '',
      usual: setting.usual.now,
    };
    const own = setting.hosts.find((host) => host.id === me.hostId) ?? setting.hosts.find((host) => host.mayOffer);
    const [pageId, linkId, ours] = [asked.get('page'), asked.get('link'), asked.get('ours') !== null];
    let form: LinkForm = blankLink(from, own ? [own.id] : []);
    // With whom is remembered, as far as their time may be offered.
    const offered = last.lineUp
      .map((seat) => ({
        ...seat,
        hostIds: seat.hostIds.filter((id) => setting.hosts.some((host) => host.id === id && host.mayOffer)),
      }))
      .filter((seat) => seat.hostIds.length > 0);
    if (!ours && offered.length > 0) form = { ...form, times: { ...form.times, lineUp: offered } };
    if (pageId !== null)
      form = fromPage(from, (await must(api.GET('/api/pages/{id}', { params: { path: { id: pageId } } }))).form);
    if (linkId !== null) {
      const earlier = await must(api.GET('/api/links/{id}', { params: { path: { id: linkId } } }));
      form = fromLink(from, earlier.form, `“${earlier.row.title}” of ${dayMonth(dateIn(earlier.row.madeAt, me.zone))}`);
    }
    const pattern = asked.get('pattern');
    if (pattern !== null) {
      const found = await must(api.GET('/api/links/beginnings', { params: { query: { search: pattern } } }));
      const known = found.patterns.find((one) => one.name.toLowerCase() === pattern.trim().toLowerCase());
      if (known) form = fromLink(from, known.form, `the pattern “${known.name}”`);
    }
    const hosts = (asked.get('hosts') ?? '')
      .split(',')
      .filter((id) => setting.hosts.some((host) => host.id === id && host.mayOffer));
    form = withHosts(forGuestOf(form, asked), hosts);
    if (ours) form = { ...form, details: { ...form.details, isAmongOurselves: true } };
    return { ...setting, beginnings, form, from, today, ours, url: url.search };
  });
