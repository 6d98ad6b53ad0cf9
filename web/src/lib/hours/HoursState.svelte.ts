import { api, type Schemas } from '$lib/api/client';
import { FormState } from '$lib/api/FormState.svelte';
import { must } from '$lib/api/problem';
import type { WeekdayKey } from './week';

type View = Schemas['HoursView'];

/**
 * Named hours while they are edited: the form, what is saved, and what the form would do to the pages that hang on
 * them.
 */
export class HoursState extends FormState<Schemas['HoursForm']> {
  saved = $state.raw<View | undefined>(undefined);
  effects = $state.raw<Schemas['PageEffect'][]>([]);
  /** What the last save did. */
  did = $state.raw<Schemas['PageEffect'][] | undefined>(undefined);
  unreadDays = $state.raw<WeekdayKey[]>([]);
  #asked = 0;

  constructor(form: Schemas['HoursForm'], saved?: View) {
    super(form);
    this.saved = saved;
  }

  /** Asks what the form as it stands would do. */
  async reckon(): Promise<void> {
    if (!this.saved || this.saved.pages.length === 0) return;
    const asked = ++this.#asked;
    try {
      const effects = await must(
        api.POST('/api/hours/{id}/effects', {
          params: { path: { id: this.saved.id } },
          body: { document: this.form.document },
        }),
      );
      if (asked === this.#asked) this.effects = effects;
    } catch {
      // What can't be reckoned yet is said when it is saved.
      if (asked === this.#asked) this.effects = [];
    }
  }

  async save(): Promise<View | undefined> {
    if (this.unreadDays.length > 0) return undefined;
    return this.attempt(async () => {
      if (this.saved) {
        const answer = await must(
          api.PUT('/api/hours/{id}', {
            params: { path: { id: this.saved.id } },
            body: { version: this.saved.version, form: this.form },
          }),
        );
        this.did = answer.effects;
        this.#take(answer.hours);
      } else this.#take(await must(api.POST('/api/hours', { body: this.form })));
      return this.saved;
    });
  }

  /** Takes the hours away. Returns whether they are gone. */
  async remove(): Promise<boolean> {
    const gone = await this.attempt(async () => {
      await must(api.DELETE('/api/hours/{id}', { params: { path: { id: this.saved?.id ?? '' } } }));
      return true;
    });
    return gone === true;
  }

  #take(view: View): void {
    this.saved = view;
    this.effects = [];
    this.keep({ name: view.name, document: view.document });
  }
}
