import { problemOf, type Problem } from './problem';

/**
 * A question that is asked anew at every change, as a preview is: one at a time, and of those that came meanwhile only
 * the latest, so that what is shown in the end is of what stands there.
 */
export class Looking {
  problem = $state.raw<Problem | undefined>(undefined);
  busy = $state(false);
  #next: (() => Promise<unknown>) | undefined;

  /** Resolves once nothing is left to ask. */
  async look(asking: () => Promise<unknown>): Promise<void> {
    this.#next = asking;
    if (this.busy) return;
    this.busy = true;
    while (this.#next) {
      const now = this.#next;
      this.#next = undefined;
      try {
        await now();
        this.problem = undefined;
      } catch (thrown) {
        this.problem = problemOf(thrown);
      }
    }
    this.busy = false;
  }
}
