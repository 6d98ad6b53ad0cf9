import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must, problemOf } from '$lib/api/problem';
import { asked, filterIn } from '$lib/bookings/filter';
import type { PageLoad } from './$types';

/** What is shown is in the address, so that it can be reloaded and sent on. */
export const load: PageLoad = ({ url }) =>
  forScreen(async () => {
    const filter = filterIn(url.searchParams);
    // A filter that can't be is said at it, which stays as it is.
    const listed = must(api.GET('/api/bookings', { params: { query: asked(filter) } })).then(
      (bookings) => ({ bookings, problem: undefined }),
      (thrown: unknown) => {
        const problem = problemOf(thrown);
        if (problem.status !== 400) throw thrown;
        return { bookings: undefined, problem };
      },
    );
    const [answer, views, pages, hosts, people] = await Promise.all([
      listed,
      must(api.GET('/api/bookings/views')),
      must(api.GET('/api/pages/names')),
      must(api.GET('/api/hosts')),
      must(api.GET('/api/people')),
    ]);
    return { filter, views, pages, hosts, people, ...answer };
  });
