import type { Schemas } from '$lib/api/client';
import { say } from '$lib/words/say.svelte';

/** Who ended a booking, for its guest. */
export function endedInWords(by: Schemas['CancelledBy'] | null, workspace: string): string {
  if (by === 'guest') return say('ended.by-guest');
  if (by === 'declined') return say('ended.declined', { workspace });
  if (by === 'lapsed') return say('ended.lapsed');
  return say('ended.by-team', { workspace });
}
