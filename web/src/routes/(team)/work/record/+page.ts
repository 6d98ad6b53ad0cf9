import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must, problemOf } from '$lib/api/problem';
import { filterIn } from '$lib/record/filter';
import type { PageLoad } from './$types';

/** What is shown is in the address, so that it can be reloaded and sent on. */
export const load: PageLoad = ({ url }) =>
  forScreen(async () => {
    const filter = filterIn(url.searchParams);
    // Dates that can't be are said where they stand.
    const listed = must(api.GET('/api/record/lines', { params: { query: filter } })).then(
      (record) => ({ record, problem: undefined }),
      (thrown: unknown) => {
        const problem = problemOf(thrown);
        if (problem.status !== 400) throw thrown;
        return { record: undefined, problem };
      },
    );
    const [answer, people] = await Promise.all([listed, must(api.GET('/api/people'))]);
    return { filter, people, ...answer };
  });
