import { error, redirect } from '@sveltejs/kit';
import { problemOf } from './problem';

/** What a screen's load asks for; a problem becomes the error screen, which says what it was. */
export async function forScreen<T>(asking: () => Promise<T>): Promise<T> {
  try {
    return await asking();
  } catch (thrown) {
    const problem = problemOf(thrown);
    if (problem.status === 401) redirect(307, `/sign-in?back=${encodeURIComponent(location.pathname)}`);
    error(problem.status >= 400 ? problem.status : 503, problem.title.replace(/\.$/, ''));
  }
}
