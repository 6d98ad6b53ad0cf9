import { afterNavigate } from '$app/navigation';

/**
 * What stands in a search field whose list is asked for by the address (`?search=`). While an answer is on its way the
 * field keeps what is typed: the search of the last answer would take letters out of the hands of who types fast. Made
 * by a component as it starts.
 */
export class TypedSearch {
  #typed = $state<string | undefined>(undefined);
  #answered: () => string;

  constructor(answered: () => string) {
    this.#answered = answered;
    afterNavigate(({ type, to }) => {
      if (type !== 'goto' || (to?.url.searchParams.get('search') ?? '') === this.#typed) this.#typed = undefined;
    });
  }

  get text(): string {
    return this.#typed ?? this.#answered();
  }

  set text(typed: string) {
    this.#typed = typed;
  }
}
