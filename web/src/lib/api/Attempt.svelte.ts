import { tick } from 'svelte';
import { goToFirst } from '$lib/ui/mends';
import { problemOf, type Problem } from './problem';

/** Something that somebody asks for by a press: whether it is under way, and what stood in its way the last time. */
export class Attempt {
  problem = $state.raw<Problem | undefined>(undefined);
  busy = $state(false);

  /** Does it, unless it is under way already. Returns whether it was done. */
  async run(doing: () => Promise<unknown>): Promise<boolean> {
    if (this.busy) return false;
    this.busy = true;
    // What was wrong is looked at anew.
    this.problem = undefined;
    try {
      await doing();
      return true;
    } catch (thrown) {
      this.problem = problemOf(thrown);
      this.#lead();
      return false;
    } finally {
      this.busy = false;
    }
  }

  /** Says what is wrong before anything is asked: a mend for each field. */
  refuse(errors: Record<string, string[]>): void {
    this.problem = { status: 400, title: '', errors };
    this.#lead();
  }

  /** To the first field that needs a mend. */
  #lead(): void {
    if (this.problem?.errors && typeof document !== 'undefined') void tick().then(goToFirst);
  }
}
