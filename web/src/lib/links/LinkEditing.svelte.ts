import { Temporal } from 'temporal-polyfill';
import { api, type Schemas } from '$lib/api/client';
import { must, problemOf, type Problem } from '$lib/api/problem';
import { startAt } from './boardMarks';
import type { LinkForm, Offer } from './form';

type View = Schemas['LinkView'];

const MOST_MARKED = 20;

/** A link while it is made or changed: the form, what is saved, and what the form as it stands offers. */
export class LinkEditing {
  form: LinkForm;
  saved = $state.raw<View | undefined>(undefined);
  supply = $state.raw<Schemas['LinkSupplyAnswer'] | undefined>(undefined);
  supplyProblem = $state.raw<Problem | undefined>(undefined);
  relaxations = $state.raw<Schemas['RelaxationsAnswer'] | undefined>(undefined);
  text = $state.raw<Schemas['LinkTextAnswer'] | undefined>(undefined);
  problem = $state.raw<Problem | undefined>(undefined);
  busy = $state(false);
  /** What was just done, for a while. */
  told = $state.raw<string | undefined>(undefined);

  #asked = 0;
  #mailKey: string | undefined;

  constructor(form: LinkForm, saved?: View) {
    this.form = $state(structuredClone(form));
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
    return this.saved === undefined || JSON.stringify(this.form) !== JSON.stringify(this.saved.form);
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

  /** Marked starts that are not open. */
  get missed(): ReadonlySet<string> {
    return new Set(this.supply?.missed ?? []);
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

  /** The mend of a field, whether it was found while saving or while reckoning. */
  mend(field: string): string | undefined {
    const saving = this.problem?.errors;
    return (saving?.[field] ?? saving?.[`form.${field}`] ?? this.supplyProblem?.errors?.[field])?.[0];
  }

  /** All mends of fields beneath one, each once. */
  mendsUnder(path: string): string[] {
    const errors = { ...this.supplyProblem?.errors, ...this.problem?.errors };
    const found = Object.keys(errors).filter((field) =>
      [path, `form.${path}`].some(
        (under) => field === under || field.startsWith(`${under}[`) || field.startsWith(`${under}.`),
      ),
    );
    return [...new Set(found.flatMap((field) => errors[field] ?? []))];
  }

  setOffer(change: Partial<Offer>): void {
    this.form.times.offer = { ...this.form.times.offer, ...change };
  }

  setDetails(change: Partial<LinkForm['details']>): void {
    this.form.details = { ...this.form.details, ...change };
  }

  /** Marks a time, or says why not. */
  mark(start: string): void {
    if (this.offer.marked.includes(start)) return;
    if (this.offer.marked.length >= MOST_MARKED)
      this.told = `${String(MOST_MARKED)} times are marked already; erase one first.`;
    else this.setOffer({ marked: [...this.offer.marked, start].sort() });
  }

  unmark(start: string): void {
    this.setOffer({ marked: this.offer.marked.filter((one) => one !== start) });
  }

  moveMark(start: string, date: string, minute: number): void {
    const to = startAt(date, minute, this.form.times.zone);
    this.setOffer({ marked: [...new Set([...this.offer.marked.filter((one) => one !== start), to])].sort() });
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
    try {
      const supply = await must(
        api.POST('/api/links/supply', { body: { times: form.times, of, guestZone: form.guestZone } }),
      );
      if (turn !== this.#asked) return;
      this.supply = supply;
      this.supplyProblem = undefined;
      const titled = form.title.trim() === '' ? { ...form, title: 'A time' } : form;
      const named = { ...titled, guests: titled.guests.filter((guest) => guest.name.trim() !== '') };
      const [text, relaxations] = await Promise.all([
        must(api.POST('/api/links/text', { body: { form: named, of } })).catch(() => undefined),
        must(api.POST('/api/links/relaxations', { body: { times: form.times, of, guestZone: form.guestZone } })).catch(
          () => undefined,
        ),
      ]);
      if (turn !== this.#asked) return;
      this.text = text;
      this.relaxations = relaxations;
    } catch (thrown) {
      if (turn === this.#asked) this.supplyProblem = problemOf(thrown);
    }
  }

  /**
   * Keeps the form as a draft, or changes what is out. Returns the link, or undefined where `problem` says what stood
   * in the way.
   */
  async save(): Promise<View | undefined> {
    return this.#doing(async () => {
      const form = $state.snapshot(this.form);
      const { saved } = this;
      return saved
        ? must(
            api.PUT('/api/links/{id}', {
              params: { path: { id: saved.row.id } },
              body: { version: saved.version, form },
            }),
          )
        : must(api.POST('/api/links', { body: form }));
    });
  }

  /** Saves what is not saved, and lets the guest open it. */
  async sendOut(): Promise<View | undefined> {
    if (this.isChanged && !(await this.save())) return undefined;
    const { saved } = this;
    if (!saved || saved.row.outAt !== null) return saved;
    return this.#doing(() => must(api.POST('/api/links/{id}/out', { params: { path: { id: saved.row.id } } })));
  }

  async hold(until: string | null): Promise<View | undefined> {
    if (this.isChanged && !(await this.save())) return undefined;
    const id = this.id ?? '';
    return this.#doing(() => must(api.PUT('/api/links/{id}/hold', { params: { path: { id } }, body: { until } })));
  }

  async release(starts: string[]): Promise<View | undefined> {
    if (this.isChanged && !(await this.save())) return undefined;
    const id = this.id ?? '';
    return this.#doing(() => must(api.POST('/api/links/{id}/release', { params: { path: { id } }, body: { starts } })));
  }

  async revoke(): Promise<View | undefined> {
    const id = this.id ?? '';
    return this.#doing(() => must(api.POST('/api/links/{id}/revoke', { params: { path: { id } } })));
  }

  /** Takes away a draft that nobody was sent. Returns whether it is gone; nothing is left to save then. */
  async remove(): Promise<boolean> {
    if (this.busy) return false;
    this.busy = true;
    try {
      await must(api.DELETE('/api/links/{id}', { params: { path: { id: this.id ?? '' } } }));
      this.form = structuredClone(this.saved?.form ?? $state.snapshot(this.form));
      return true;
    } catch (thrown) {
      this.problem = problemOf(thrown);
      return false;
    } finally {
      this.busy = false;
    }
  }

  /** Takes away a wish that is answered, or can't be. */
  async dropWish(wish: string): Promise<void> {
    try {
      await must(api.DELETE('/api/links/{id}/wishes/{wish}', { params: { path: { id: this.id ?? '', wish } } }));
      await this.refresh();
    } catch (thrown) {
      this.problem = problemOf(thrown);
    }
  }

  async mail(word: string, again: boolean): Promise<View | undefined> {
    if (this.isChanged && !(await this.save())) return undefined;
    // One key for one mail: asked again after a lost answer, the server sends it no second time.
    this.#mailKey ??= crypto.randomUUID();
    const params = { path: { id: this.id ?? '' }, header: { 'Idempotency-Key': this.#mailKey } };
    const sent = await this.#doing(() =>
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
    this.form = structuredClone(view.form);
  }

  async #doing(work: () => Promise<View>): Promise<View | undefined> {
    if (this.busy) return undefined;
    this.busy = true;
    try {
      const view = await work();
      this.problem = undefined;
      this.#take(view);
      return view;
    } catch (thrown) {
      this.problem = problemOf(thrown);
      return undefined;
    } finally {
      this.busy = false;
    }
  }
}
