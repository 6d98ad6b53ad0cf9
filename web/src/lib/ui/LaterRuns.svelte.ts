import { problemOf, type Problem } from '$lib/api/problem';

interface Run<R> {
  rows: R[];
  total: number;
  after: string | null;
}

/**
 * A list that grows as one scrolls: its first run comes with the screen, and later ones are asked for by where the last
 * one ended. Whenever the first comes anew, as many as were shown are asked for again. Made by a component as it
 * starts.
 */
export class LaterRuns<R extends { id: string }> {
  problem = $state.raw<Problem | undefined>(undefined);
  busy = $state(false);
  #later = $state.raw<Run<R>[]>([]);
  #turn = 0;

  #choice: string;
  readonly #first: () => Run<R>;
  readonly #ask: (after: string) => Promise<Run<R>>;

  /**
   * @param choice What the list is a choice of at first.
   * @param ask Asks for the run after a place.
   */
  constructor(choice: string, first: () => Run<R>, ask: (after: string) => Promise<Run<R>>) {
    [this.#choice, this.#first, this.#ask] = [choice, first, ask];
  }

  /** None twice, whatever moved from one run to another meanwhile. */
  get rows(): R[] {
    const seen = new Set<string>();
    return [this.#first(), ...this.#later]
      .flatMap((run) => run.rows)
      .filter((row) => !seen.has(row.id) && seen.add(row.id));
  }

  get isWhole(): boolean {
    return this.#last.after === null;
  }

  get #last(): Run<R> {
    return this.#later.at(-1) ?? this.#first();
  }

  /** Asks for the next run, unless it is under way. */
  async more(): Promise<void> {
    const after = this.#last.after;
    if (this.busy || after === null) return;
    await this.#run(async (turn) => {
      const next = await this.#ask(after);
      if (turn === this.#turn) this.#later = [...this.#later, next];
    });
  }

  /** The first run came anew: of another choice the list begins again, else as much is asked for as was shown. */
  async renew(choice: string): Promise<void> {
    this.#turn++;
    this.busy = false;
    if (choice !== this.#choice) this.#later = [];
    this.#choice = choice;
    let wanted = this.#later.reduce((sum, run) => sum + run.rows.length, 0);
    if (wanted === 0) return;
    await this.#run(async (turn) => {
      const again: Run<R>[] = [];
      for (let { after } = this.#first(); after !== null && wanted > 0;) {
        const run = await this.#ask(after);
        again.push(run);
        ({ after } = run);
        wanted -= run.rows.length;
      }
      if (turn === this.#turn) this.#later = again;
    });
  }

  async #run(doing: (turn: number) => Promise<void>): Promise<void> {
    const turn = this.#turn;
    [this.busy, this.problem] = [true, undefined];
    try {
      await doing(turn);
    } catch (thrown) {
      if (turn === this.#turn) this.problem = problemOf(thrown);
    } finally {
      if (turn === this.#turn) this.busy = false;
    }
  }
}
