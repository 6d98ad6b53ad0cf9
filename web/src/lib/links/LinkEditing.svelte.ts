import { Temporal } from 'temporal-polyfill';
import { api, type Schemas } from '$lib/api/client';
import { FormState } from '$lib/api/FormState.svelte';
import { must, problemOf } from '$lib/api/problem';
import { startAt } from './boardPieces';
import type { LinkForm, Offer } from './form';

type View = Schemas['LinkView'];

const MOST_PICKED = 20;

/** A link while it is made or changed: the form, what is saved, and what the form as it stands offers. */
export class LinkEditing extends FormState<LinkForm> {
  saved = $state.raw<View | undefined>(undefined);
  supply = $state.raw<Schemas['LinkSupplyAnswer'] | undefined>(undefined);
  relaxations = $state.raw<Schemas['RelaxationsAnswer'] | undefined>(undefined);
  text = $state.raw<Schemas['LinkTextAnswer'] | undefined>(undefined);
  /** What was just done, for a while. */
  told = $state.raw<string | undefined>(undefined);

  #asked = 0;
  #mailKey: string | undefined;

  constructor(form: LinkForm, saved?: View) {
    super(form);
    this.saved = saved;
  }

  // Read as they are, not derived: what is under way when the screen is left still reads them.
  get id(): string | undefined {
    return this.saved?.row.id;
  }

  get offer(): Offer {
    return this.form.times.offer;
  }

  get minutes(): number {
    return this.form.times.durations[0] ?? 30;
  }

  /** Whether something is not saved. */
  get isChanged(): boolean {
    return this.saved === undefined || this.isTouched;
  }

  get isOut(): boolean {
    return this.saved?.row.state === 'out' || this.saved?.row.state === 'opened';
  }

  /** Whether nothing more is to be taken by it. */
  get isOver(): boolean {
    return this.saved !== undefined && ['booked', 'ended', 'revoked'].includes(this.saved.row.state);
  }

  /** The starts that are held. */
  get held(): ReadonlySet<string> {
    return new Set((this.saved?.holds ?? []).map((hold) => hold.start));
  }

  /** Picked starts that are not open, each with why. */
  get missed(): ReadonlyMap<string, Schemas['DarkAnswer']> {
    return new Map((this.supply?.missed ?? []).map((one) => [one.start, one.why]));
  }

  /** Of a pool, by start, the hosts who can serve it; empty where all of them serve every opening. */
  get servedBy(): ReadonlyMap<string, readonly string[]> {
    const served = new Map<string, string[]>();
    for (const { host, starts } of this.supply?.byHost ?? [])
      for (const start of starts) served.set(start, [...(served.get(start) ?? []), host]);
    return served;
  }

  get hostIds(): string[] {
    return [...new Set(this.form.times.lineUp.flatMap((seat) => seat.hostIds))];
  }

  get guestName(): string {
    return this.form.guests
      .map((guest) => guest.name.trim())
      .filter((name) => name !== '')
      .join(', ');
  }

  setOffer(change: Partial<Offer>): void {
    this.form.times.offer = { ...this.form.times.offer, ...change };
  }

  setDetails(change: Partial<LinkForm['details']>): void {
    this.form.details = { ...this.form.details, ...change };
  }

  /** Picks a time, or says why not. */
  pick(start: string): void {
    if (this.offer.picked.includes(start)) return;
    if (this.offer.picked.length >= MOST_PICKED)
      this.told = `${String(MOST_PICKED)} times are picked already; erase one first.`;
    else this.setOffer({ picked: [...this.offer.picked, start].sort() });
  }

  unpick(start: string): void {
    this.setOffer({ picked: this.offer.picked.filter((one) => one !== start) });
  }

  movePick(start: string, date: string, minute: number): void {
    const to = startAt(date, minute, this.form.times.zone);
    this.setOffer({ picked: [...new Set([...this.offer.picked.filter((one) => one !== start), to])].sort() });
  }

  paint(date: string, from: number, to: number, isWeekly = false): void {
    const start = Temporal.PlainDate.from(date)
      .toPlainDateTime()
      .add({ minutes: from })
      .toString({ smallestUnit: 'second' });
    this.setOffer({ painted: [...this.offer.painted, { start, minutes: to - from, isWeekly }] });
  }

  /** Takes painted time elsewhere, or stretches it; what comes each week is taken along as a whole. */
  movePaint(at: number, fromDate: string, date: string, from: number, to: number): void {
    const paint = this.offer.painted[at];
    if (!paint) return;
    const days = Temporal.PlainDate.from(fromDate).until(Temporal.PlainDate.from(date), { largestUnit: 'days' }).days;
    const start = Temporal.PlainDateTime.from(paint.start)
      .toPlainDate()
      .add({ days })
      .toPlainDateTime()
      .add({ minutes: from })
      .toString({ smallestUnit: 'second' });
    this.setOffer({
      painted: this.offer.painted.map((one, i) => (i === at ? { ...one, start, minutes: to - from } : one)),
    });
  }

  erasePaint(at: number): void {
    this.setOffer({ painted: this.offer.painted.filter((_, i) => i !== at) });
  }

  /** Counts what the form as it stands offers, and writes its times out. */
  async reckon(): Promise<void> {
    const turn = ++this.#asked;
    const form = $state.snapshot(this.form);
    const of = this.id ?? null;
    // What is not typed yet keeps nothing from being counted and written out.
    const titled = form.title.trim() === '' ? { ...form, title: 'A time' } : form;
    const named = { ...titled, guests: titled.guests.filter((guest) => guest.name.trim() !== '') };
    try {
      const reckoned = await must(api.POST('/api/links/reckoning', { body: { form: named, of } }));
      if (turn !== this.#asked) return;
      this.supply = reckoned.supply;
      this.text = reckoned.text ?? undefined;
      this.relaxations = reckoned.relaxations;
      this.countProblem = undefined;
    } catch (thrown) {
      if (turn === this.#asked) this.countProblem = problemOf(thrown);
    }
  }

  /**
   * Keeps the form as a draft, or changes what is out. Returns the link, or undefined where `problem` says what stood
   * in the way.
   */
  async save(out = false): Promise<View | undefined> {
    return this.#saving(async () => {
      const form = $state.snapshot(this.form);
      const { saved } = this;
      return saved
        ? must(
            api.PUT('/api/links/{id}', {
              params: { path: { id: saved.row.id }, query: { out } },
              body: { version: saved.version, form },
            }),
          )
        : must(api.POST('/api/links', { params: { query: { out } }, body: form }));
    });
  }

  /**
   * Keeps it as a draft whose times are given out as text: neither a title nor a guest is needed, and nothing goes out.
   */
  async giveAsText(): Promise<View | undefined> {
    if (this.form.title.trim() === '') this.form.title = this.guestName ? `A time with ${this.guestName}` : 'A time';
    this.form.guests = this.form.guests.filter((guest) => guest.name.trim() !== '');
    const { saved } = this;
    if (saved && (saved.row.outAt !== null || (saved.row.givenAt !== null && !this.isChanged)))
      return this.isChanged ? this.save() : saved;
    return this.#saving(async () => {
      const form = $state.snapshot(this.form);
      const query = { asText: true };
      return saved
        ? must(
            api.PUT('/api/links/{id}', {
              params: { path: { id: saved.row.id }, query },
              body: { version: saved.version, form },
            }),
          )
        : must(api.POST('/api/links', { params: { query }, body: form }));
    });
  }

  /** Saves what is not saved and lets the guest open it, both or neither. */
  async sendOut(): Promise<View | undefined> {
    const { saved } = this;
    const isOut = saved !== undefined && saved.row.outAt !== null;
    if (this.isChanged || !saved) return this.save(!isOut);
    if (isOut) return saved;
    return this.#saving(() => must(api.POST('/api/links/{id}/out', { params: { path: { id: saved.row.id } } })));
  }

  async hold(until: string | null): Promise<View | undefined> {
    if (this.isChanged && !(await this.save())) return undefined;
    const id = this.id ?? '';
    return this.#saving(() => must(api.PUT('/api/links/{id}/hold', { params: { path: { id } }, body: { until } })));
  }

  async release(starts: string[]): Promise<View | undefined> {
    if (this.isChanged && !(await this.save())) return undefined;
    const id = this.id ?? '';
    return this.#saving(() =>
      must(api.POST('/api/links/{id}/release', { params: { path: { id } }, body: { starts } })),
    );
  }

  async revoke(): Promise<View | undefined> {
    const id = this.id ?? '';
    return this.#saving(() => must(api.POST('/api/links/{id}/revoke', { params: { path: { id } } })));
  }

  /** Takes away a draft that nobody was sent. Returns whether it is gone; nothing is left to save then. */
  async remove(): Promise<boolean> {
    const gone = await this.attempt(async () => {
      await must(api.DELETE('/api/links/{id}', { params: { path: { id: this.id ?? '' } } }));
      this.keep(this.saved?.form ?? $state.snapshot(this.form));
      return true;
    });
    return gone === true;
  }

  /** Takes away a wish that is answered, or can't be. */
  async dropWish(wish: string): Promise<void> {
    const path = { id: this.id ?? '', wish };
    await this.attempt(() => must(api.DELETE('/api/links/{id}/wishes/{wish}', { params: { path } })));
    await this.refresh();
  }

  /** Keeps the form as a pattern. Returns whether it is kept. */
  async keepAsPattern(name: string): Promise<boolean> {
    // A pattern is for nobody yet.
    const form = { ...$state.snapshot(this.form), title: this.form.title.trim() || name, guests: [] };
    const kept = await this.attempt(() => must(api.POST('/api/links/patterns', { body: { name, form } })));
    return kept !== undefined;
  }

  async mail(word: string, again: boolean): Promise<View | undefined> {
    if (this.isChanged && !(await this.save())) return undefined;
    // One key for one mail: asked again after a lost answer, the server sends it no second time.
    this.#mailKey ??= crypto.randomUUID();
    const params = { path: { id: this.id ?? '' }, header: { 'Idempotency-Key': this.#mailKey } };
    const sent = await this.#saving(() =>
      again
        ? must(api.POST('/api/links/{id}/ask-again', { params, body: { word } }))
        : must(api.POST('/api/links/{id}/mail', { params, body: { word } })),
    );
    if (sent) this.#mailKey = undefined;
    return sent;
  }

  /** Asks anew what is saved; whatever is being changed here stays. */
  async refresh(): Promise<void> {
    const id = this.id;
    if (id === undefined || this.busy) return;
    const view = await must(api.GET('/api/links/{id}', { params: { path: { id } } })).catch(() => undefined);
    if (view === undefined || this.busy) return;
    if (!this.isChanged) this.#take(view);
    // Somebody else's change is seen when this one is saved; the rest is facts.
    else this.saved = { ...view, version: this.saved?.version ?? view.version, form: this.saved?.form ?? view.form };
  }

  #take(view: View): void {
    this.saved = view;
    this.keep(view.form);
  }

  #saving(work: () => Promise<View>): Promise<View | undefined> {
    return this.attempt(async () => {
      const view = await work();
      this.#take(view);
      return view;
    });
  }
}
