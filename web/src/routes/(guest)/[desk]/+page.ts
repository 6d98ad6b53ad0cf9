import { guestApi } from '$lib/api/client';
import { must } from '$lib/api/problem';
import { takeFirst } from '$lib/guest/first/answer';
import { forGuest } from '$lib/guest/loading';
import { speak } from '$lib/words/speak';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params, url }) => {
  const first = takeFirst(url);
  if (first?.desk) {
    await speak('', first);
    return { desk: first.desk };
  }
  const asked = guestApi.GET('/api/public/desks/{desk}', { params: { path: { desk: params.desk } } });
  const desk = await forGuest(must(asked), 'missing.desk');
  await speak('');
  return { desk };
};
