import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Asks anew for all that the screen shows. Asking would put an end to a way to another screen that has begun, so that a
 * press on its link would seem lost: it is asked once that screen is there. Resolves when the answers are shown.
 */
export async function askAnew(): Promise<void> {
  // A way that leads nowhere, or somewhere else in the end, is over as well; one that was given up may be named for
  // good, and is waited for once.
  for (let waited: Promise<void> | undefined; navigating.complete && navigating.complete !== waited;) {
    waited = navigating.complete;
    await waited.catch(() => undefined);
  }
  await invalidateAll();
}
