import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must, problemOf, type Problem } from '$lib/api/problem';
import { filterIn } from '$lib/guests/filter';
import { placeIn } from '$lib/ui/listPlace';
import type { PageLoad } from './$types';

/** What is shown is in the address, so that it can be reloaded and sent on. */
export const load: PageLoad = ({ url }) =>
  forScreen(async () => {
    const [filter, place] = [filterIn(url.searchParams), placeIn(url.searchParams)];
    const [views, fields, people] = await Promise.all([
      must(api.GET('/api/guests/views')),
      must(api.GET('/api/guests/fields')),
      must(api.GET('/api/people')),
    ]);
    // A value that a field can't have is said at the filter, which stays as it is.
    let [guests, problem] = [undefined, undefined] as [
      Awaited<ReturnType<typeof list>> | undefined,
      Problem | undefined,
    ];
    const list = () => must(api.POST('/api/guests/list', { params: { query: place }, body: filter }));
    try {
      guests = await list();
    } catch (thrown) {
      problem = problemOf(thrown);
      if (problem.status !== 400) throw thrown;
    }
    return { filter, place, views, fields, people, guests, problem };
  });
