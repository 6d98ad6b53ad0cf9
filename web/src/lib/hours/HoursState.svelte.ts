import { api, type Schemas } from '$lib/api/client';
import { must, problemOf, type Problem } from '$lib/api/problem';
import type { WeekdayKey } from './week';

type View = Schemas['HoursView'];

/**
 * Named hours while they are edited: the form, what is saved, and what the form would do to the pages that hang on
 * them.
 */
export class HoursState {
  form: Schemas['HoursForm'];
  saved = $state.raw<View | undefined>(undefined);
  problem = $state.raw<Problem | undefined>(undefined);
  effects = $state.raw<Schemas['PageEffect'][]>([]);
  /** What the last save did. */
  did = $state.raw<Schemas['PageEffect'][] | undefined>(undefined);
  unreadDays = $state.raw<WeekdayKey[]>([]);
  busy = $state(false);

  readonly isTouched = $derived.by(() => JSON.stringify(this.form) !== this.#kept);

  #kept = $state('');
  #asked = 0;

  constructor(form: Schemas['HoursForm'], saved?: View) {
    this.form = $state(structuredClone(form));
    this.saved = saved;
    this.#kept = JSON.stringify(form);
  }

  mend(field: string): string | undefined {
    return (this.problem?.errors?.[field] ?? this.problem?.errors?.[`form.${field}`])?.[0];
  }

  mendsUnder(path: string): string[] {
    return Object.entries(this.problem?.errors ?? {})
      .filter(([field]) => field === path || field.startsWith(`${path}[`) || field.startsWith(`${path}.`))
      .flatMap(([, mends]) => mends);
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
    this.busy = true;
    try {
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
      this.problem = undefined;
      return this.saved;
    } catch (thrown) {
      this.problem = problemOf(thrown);
      return undefined;
    } finally {
      this.busy = false;
    }
  }

  #take(view: View): void {
    this.saved = view;
    this.effects = [];
    Object.assign(this.form, structuredClone({ name: view.name, document: view.document }));
    this.#kept = JSON.stringify(this.form);
  }
}
