import type { Schemas } from '$lib/api/client';

/** Who ended a booking, for its guest. */
export function endedInWords(by: Schemas['CancelledBy'] | null, workspace: string): string {
  if (by === 'guest') return 'You cancelled this booking';
  if (by === 'declined') return `${workspace} could not accept this`;
  if (by === 'lapsed') return 'Nobody could answer in time; this is not booked';
  return `${workspace} cancelled this booking`;
}
