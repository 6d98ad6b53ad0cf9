import { guestApi } from '$lib/api/client';
import { must } from '$lib/api/problem';
import { openingsOf, takeFirst } from '$lib/guest/first/answer';
import { forGuest } from '$lib/guest/loading';
import { setClock } from '$lib/time/format';
import { speak } from '$lib/words/speak';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params, url }) => {
  const { address } = params;
  const at = url.searchParams.get('at') ?? undefined;
  const first = takeFirst(url);
  if (first?.link) {
    await speak(first.link.page.language, first);
    setClock(first.link.page.clock ?? undefined);
    return { address, link: first.link, openings: first.openings ? openingsOf(first.openings) : undefined, at };
  }
  const asked = guestApi.GET('/api/public/links/{address}', { params: { path: { address } } });
  const link = await forGuest(must(asked), 'missing.link');
  await speak(link.page.language);
  setClock(link.page.clock ?? undefined);
  return { address, link, openings: undefined, at };
};
