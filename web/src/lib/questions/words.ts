import type { Schemas } from '$lib/api/client';
import { fullDate } from '$lib/time/format';
import { say } from '$lib/words/say.svelte';

/** The key of the question for the number that hosts ring. */
export const NUMBER_TO_RING = 'number-to-ring';

/** What is asked, as people read it: what a page asks of itself it asks in their language. */
export function wordsOf(asked: Pick<Schemas['Question'], 'key' | 'words'>): string {
  return asked.key === NUMBER_TO_RING ? say('question.number-to-ring') : asked.words;
}

/** An answer as people read it. */
export function answerInWords(answer: Pick<Schemas['GivenAnswer'], 'kind' | 'text'>): string {
  if (answer.kind === 'date') return fullDate(answer.text);
  if (answer.kind === 'consent') return say('question.agreed');
  if (answer.kind === 'yesNo') return say(answer.text === 'yes' ? 'answer.yes' : 'answer.no');
  return answer.kind === 'someOf' ? answer.text.replaceAll('\n', ', ') : answer.text;
}
