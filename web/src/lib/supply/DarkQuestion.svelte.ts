import type { Schemas } from '$lib/api/client';
import { problemOf, type Problem } from '$lib/api/problem';

/** A stretch of a day without openings, in minutes after midnight of the page's zone. */
export interface DarkStretch {
  date: string;
  fromMinute: number;
  toMinute: number;
  /** Whether nothing at all is open on the date. */
  isWhole: boolean;
}

/** Why one stretch has no openings, as it is asked for. */
export class DarkQuestion {
  asked = $state.raw<DarkStretch | undefined>(undefined);
  answer = $state.raw<Schemas['DarkAnswer'] | undefined>(undefined);
  problem = $state.raw<Problem | undefined>(undefined);

  readonly #reasonsFor: (stretch: DarkStretch) => Promise<Schemas['DarkAnswer']>;

  /** @param reasonsFor Asks about a stretch of whatever is being made, as it is at that moment. */
  constructor(reasonsFor: (stretch: DarkStretch) => Promise<Schemas['DarkAnswer']>) {
    this.#reasonsFor = reasonsFor;
  }

  async ask(stretch: DarkStretch): Promise<void> {
    this.asked = stretch;
    this.answer = undefined;
    this.problem = undefined;
    try {
      const answer = await this.#reasonsFor(stretch);
      if (this.asked === stretch) this.answer = answer;
    } catch (thrown) {
      if (this.asked === stretch) this.problem = problemOf(thrown);
    }
  }

  /** Asks the same of what the page has become. */
  async askAgain(): Promise<void> {
    if (this.asked) await this.ask(this.asked);
  }

  leave(): void {
    this.asked = undefined;
  }
}
