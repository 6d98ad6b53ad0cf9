import type { Schemas } from '$lib/api/client';
import { say } from '$lib/words/say.svelte';

/** Who ended a booking, for its guest. */
export function endedInWords(by: Schemas['CancelledBy'] | null, workspace: string): string {
  if (by === 'guest') return say('You cancelled this booking');
  if (by === 'declined') return say('{workspace} could not accept this', { workspace });
  if (by === 'lapsed') return say('Nobody could answer in time; this is not booked');
  return say('{workspace} cancelled this booking', { workspace });
}
