import { redirect } from '@sveltejs/kit';
import { guestApi } from '$lib/api/client';
import { must } from '$lib/api/problem';
import { openingsOf, takeFirst } from '$lib/guest/first/answer';
import { forGuest } from '$lib/guest/loading';
import { setClock } from '$lib/time/format';
import { speak } from '$lib/words/speak';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params, url }) => {
  const secret = url.searchParams.get('for') ?? undefined;
  const first = takeFirst(url);
  if (first?.page) {
    await speak(first.page.language, first);
    setClock(first.page.clock ?? undefined);
    return {
      path: { desk: params.desk, page: params.page },
      page: first.page,
      secret,
      openings: first.openings ? openingsOf(first.openings) : undefined,
    };
  }
  const path = { desk: params.desk, page: params.page };
  const asked = guestApi.GET('/api/public/desks/{desk}/pages/{page}', {
    params: { path, query: secret === undefined ? {} : { for: secret } },
  });
  const page = await forGuest(must(asked), 'missing.page');
  // An address that the page had before leads to where it is now.
  if (page.path !== `/${path.desk}/${path.page}`) redirect(308, page.path + url.search);
  await speak(page.language);
  setClock(page.clock ?? undefined);
  return { path, page, secret, openings: undefined };
};
