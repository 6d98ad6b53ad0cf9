import { error } from '@sveltejs/kit';
import { problemOf, spoken } from '$lib/api/problem';
import { say, type ScreenKey } from '$lib/words/say.svelte';
import { speak } from '$lib/words/speak';

/** What a guest's screen loads; what can't be had becomes the error screen, in the reader's language. */
export async function forGuest<T>(asking: Promise<T>, missing: ScreenKey): Promise<T> {
  try {
    return await asking;
  } catch (thrown) {
    await speak('');
    const problem = spoken(problemOf(thrown));
    if (problem.status === 404) error(404, say(missing));
    error(503, problem.title.replace(/\.$/, ''));
  }
}
