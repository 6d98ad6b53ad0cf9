import { api, type Schemas } from '$lib/api/client';
import { FormState } from '$lib/api/FormState.svelte';
import { must, problemOf } from '$lib/api/problem';
import type { WeekdayKey } from '$lib/hours/week';
import { addressFrom } from './address';
import { changedPaths, changedParts } from './differences';
import type { PageForm } from './form';
import { difference, startsOf } from './lanes';
import { workedFrom } from './examples';

export const weekChoices = [2, 4, 8] as const;
export type Weeks = (typeof weekChoices)[number];

type PageView = Schemas['PageView'];
type Supply = Schemas['SupplyAnswer'];

/** A page while it is edited: the form, what is saved, and what the form as it stands would offer. */
export class EditorState extends FormState<PageForm> {
  saved = $state.raw<PageView | undefined>(undefined);
  supply = $state.raw<Supply | undefined>(undefined);
  savedSupply = $state.raw<Supply | undefined>(undefined);
  addressMend = $state.raw<string | undefined>(undefined);
  /** Days whose typed times can't be read; nothing is saved while there are any. */
  unreadDays = $state.raw<WeekdayKey[]>([]);
  /** The duration whose openings are counted. */
  duration = $state(0);
  /** How many weeks are counted. */
  weeks = $state<Weeks>(2);
  /** Where the page's own picture is; null where it has none, undefined until that is known. */
  picture = $state.raw<string | null | undefined>(undefined);
  relaxations = $state.raw<Schemas['RelaxationsAnswer'] | undefined>(undefined);

  /** What changes are told from: the page as guests have it, or else as it is saved; nothing of a new one. */
  readonly base = $derived(this.saved?.published ?? this.saved?.form);
  readonly isPublished = $derived(this.saved?.state === 'published');
  /** What differs from what guests have, in words. */
  readonly changes = $derived.by(() => (this.saved?.published ? changedParts(this.form, this.saved.published) : []));
  readonly changeCount = $derived.by(() =>
    this.saved?.published ? changedPaths(this.form, this.saved.published).length : 0,
  );
  /** What examples of rules are worked from. */
  readonly worked = $derived(workedFrom(this.supply));
  readonly before = $derived(
    this.isPublished &&
      this.savedSupply &&
      this.savedSupply.duration === this.supply?.duration &&
      this.savedSupply.days.length === this.supply.days.length
      ? startsOf(this.savedSupply)
      : undefined,
  );
  readonly change = $derived(
    this.before && this.savedSupply && this.supply ? difference(this.savedSupply, this.supply) : { gained: 0, lost: 0 },
  );
  #addressTyped: boolean;
  #asked = 0;
  #pictures = 0;

  constructor(form: PageForm, saved?: PageView) {
    super(form);
    this.saved = saved;
    this.#addressTyped = saved !== undefined;
  }

  /** Whether something is not saved. */
  get isChanged(): boolean {
    return this.saved === undefined || this.isTouched;
  }

  /**
   * Whether a part of the form differs from what guests have, or else from what is saved; nothing does while nothing is
   * saved.
   */
  differs(read: (form: PageForm) => unknown): boolean {
    return this.base !== undefined && JSON.stringify(read(this.form)) !== JSON.stringify(read(this.base));
  }

  setTitle(title: string): void {
    this.form.title = title;
    if (!this.#addressTyped) this.form.address = addressFrom(title);
  }

  /** The start grid follows the duration until it is set by hand. */
  setDurations(durations: number[]): void {
    const { times } = this.form;
    const [was, next] = [times.durations[0], durations[0]];
    if (next !== undefined && times.step === was) times.step = next;
    times.durations = durations;
  }

  setAddress(address: string): void {
    this.#addressTyped = true;
    this.form.address = address;
  }

  async reckon(): Promise<void> {
    const asked = ++this.#asked;
    const { durations } = this.form.times;
    const duration = durations.includes(this.duration) ? this.duration : null;
    try {
      const supply = await must(
        api.POST('/api/pages/supply', {
          body: { times: this.form.times, duration, pageId: this.saved?.id ?? null, weeks: this.weeks },
        }),
      );
      if (asked !== this.#asked) return;
      this.supply = supply;
      this.countProblem = undefined;
      await this.#reckonSaved(supply.duration);
    } catch (thrown) {
      if (asked === this.#asked) this.countProblem = problemOf(thrown);
    }
  }

  /** Ways to open more than the form as it stands. */
  async relax(): Promise<void> {
    const asked = this.#asked;
    const { supply } = this;
    if (!supply) return;
    try {
      const answer = await must(
        api.POST('/api/pages/relaxations', {
          body: {
            times: this.form.times,
            duration: supply.duration,
            pageId: this.saved?.id ?? null,
            weeks: this.weeks,
          },
        }),
      );
      if (asked === this.#asked) this.relaxations = answer;
    } catch {
      // What is wrong with the form is said where openings are counted.
      if (asked === this.#asked) this.relaxations = undefined;
    }
  }

  /** Looks whether the page has a picture. Its address is always the same; the number makes the browser ask again. */
  async lookAtPicture(): Promise<void> {
    if (!this.saved) return;
    const address = `/api/pages/${this.saved.id}/picture?${String(++this.#pictures)}`;
    this.picture = (await fetch(address)).ok ? address : null;
  }

  async checkAddress(): Promise<void> {
    const { deskId, address } = this.form;
    if (address === '') return;
    const answer = await api.GET('/api/pages/address', {
      params: { query: { deskId, address, exceptPage: this.saved?.id } },
    });
    if (address === this.form.address && deskId === this.form.deskId) this.addressMend = answer.data?.mend ?? undefined;
  }

  /** Saves the form. Returns the page, or undefined where `problem` says what stood in the way. */
  async save(): Promise<PageView | undefined> {
    if (this.unreadDays.length > 0) return undefined;
    return this.attempt(async () => {
      const view = this.saved
        ? await must(
            api.PUT('/api/pages/{id}', {
              params: { path: { id: this.saved.id } },
              body: { version: this.saved.version, form: this.form },
            }),
          )
        : await must(api.POST('/api/pages', { body: this.form }));
      this.#keepPage(view);
      return view;
    });
  }

  /** Saves what is not saved yet, then opens the page to guests with all of it. */
  async publish(): Promise<PageView | undefined> {
    const saved = this.isChanged ? await this.save() : this.saved;
    if (!saved) return undefined;
    return this.attempt(async () => {
      const view = await must(
        api.POST('/api/pages/{id}/publish', { params: { path: { id: saved.id } }, body: { version: saved.version } }),
      );
      this.#keepPage(view);
      await this.reckon();
      return view;
    });
  }

  /** Throws away what is not published, typed or kept. */
  async discard(): Promise<PageView | undefined> {
    const saved = this.saved;
    if (!saved) return undefined;
    return this.attempt(async () => {
      const view = saved.hasDraft
        ? await must(
            api.POST('/api/pages/{id}/discard', {
              params: { path: { id: saved.id } },
              body: { version: saved.version },
            }),
          )
        : saved;
      this.#keepPage(view);
      return view;
    });
  }

  unpublish(): Promise<PageView | undefined> {
    return this.turn('unpublish');
  }

  /** Takes the page to another state. What is not saved yet stays in the form. */
  async turn(way: 'unpublish' | 'archive' | 'restore'): Promise<PageView | undefined> {
    const saved = this.saved;
    if (!saved) return undefined;
    return this.attempt(async () => {
      const view = await must(
        api.POST(`/api/pages/{id}/${way}`, { params: { path: { id: saved.id } }, body: { version: saved.version } }),
      );
      this.saved = view;
      return view;
    });
  }

  /** Makes another page like this one, as it is saved. */
  async copy(): Promise<PageView | undefined> {
    const saved = this.saved;
    if (!saved) return undefined;
    return this.attempt(() => must(api.POST('/api/pages/{id}/copy', { params: { path: { id: saved.id } } })));
  }

  #keepPage(view: PageView): void {
    this.saved = view;
    this.keep(view.form);
    this.savedSupply = undefined;
  }

  /** The saved page's own supply, to tell what changes add and take. */
  async #reckonSaved(duration: number): Promise<void> {
    if (!this.saved?.published || !this.saved.published.times.durations.includes(duration)) return;
    if (this.savedSupply?.duration === duration && this.savedSupply.days.length === this.weeks * 7) return;
    this.savedSupply = await must(
      api.GET('/api/pages/{id}/supply', {
        params: { path: { id: this.saved.id }, query: { duration, weeks: this.weeks } },
      }),
    );
  }
}
