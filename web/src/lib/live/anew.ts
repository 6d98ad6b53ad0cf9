import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Asks anew for all that the screen shows. Asking would put an end to a way to another screen that has begun, so that a press on its link
 * would seem lost: it is asked once that screen is there. Resolves when the answers are shown.
 */
export async function askAnew(): Promise<void> {
  // A way that leads nowhere, or somewhere else in the end, is over as well.
  while (navigating.complete) await navigating.complete.catch(() => undefined);
  await invalidateAll();
}
