import { guestApi, type Schemas } from '$lib/api/client';
import { must, problemOf, type Problem } from '$lib/api/problem';
import type { MinuteSpan } from '$lib/lanes/spans';
import { shownClock } from '$lib/time/format';
import { say } from '$lib/words/say.svelte';
import { GuestPageState } from '../GuestPageState.svelte';
import { keptZoneOf } from '../kept';
import { linkSource } from '../source';
import { WishKey } from '../WishKey';
import {
  added,
  axisOf,
  changed,
  countOf,
  datesOf,
  inZone,
  keepStretches,
  keptStretches,
  MOST,
  removed,
  stretchesOf,
  takenOn,
  without,
  type Marked,
} from './stretches';

const ASK_AFTER = 250;
const DAYS_SHOWN = 14;

/** What a guest who is asked first marks, and how much of ours fits it. */
export class AskedState {
  readonly guest: GuestPageState;
  readonly asks: Schemas['AskedOfGuest'];
  readonly address: string;
  marked = $state.raw<Marked>({});
  words = $state('');
  /** How many of ours fit, by the start of a stretch; a stretch that was not crossed yet has none. */
  fits = $state.raw<ReadonlyMap<string, number>>(new Map());
  problem = $state.raw<Problem | undefined>(undefined);
  sending = $state(false);
  sent = $state(false);
  daysShown = $state(DAYS_SHOWN);

  readonly stretches = $derived.by(() => stretchesOf(this.marked, this.guest.zone));
  readonly dates = $derived.by(() => datesOf(this.asks, this.guest.zone, this.guest.now));
  readonly shown = $derived.by(() => this.dates.slice(0, this.daysShown));
  readonly axis = $derived.by(() => axisOf(this.asks, this.guest.page.zone, this.guest.zone));
  readonly isFull = $derived(countOf(this.marked) >= MOST);
  readonly taken = $derived.by(
    () => new Map(this.dates.map((date) => [date, takenOn(this.guest.taken, date, this.guest.zone)])),
  );

  #timer: ReturnType<typeof setTimeout> | undefined;
  #asked = 0;
  readonly #key = new WishKey();

  constructor(address: string, link: Schemas['GuestLink'], asks: Schemas['AskedOfGuest']) {
    this.address = address;
    this.asks = asks;
    const source = linkSource(address, link, undefined);
    this.guest = new GuestPageState(source);
    // When it suits somebody they know by their own clock, wherever the appointment is.
    const { page, own } = this.guest;
    if (!page.isPlaceZoneOnly && keptZoneOf(source.name) === undefined) this.guest.zone = own;
    const kept = keptStretches(address, this.guest.now);
    if (kept.length > 0) this.#mark(inZone(kept, this.guest.zone));
  }

  paint(date: string, span: MinuteSpan): void {
    if (this.isFull) return;
    this.#mark(added(this.marked, date, span, this.taken.get(date) ?? []));
  }

  /** A mere press: an hour, or as long as the appointment takes, from the half hour before it on. */
  press(date: string, minute: number): void {
    const from = Math.max(this.axis.from, Math.floor(minute / 30) * 30);
    const long = Math.max(60, Math.ceil(this.guest.duration / 15) * 15);
    this.paint(date, { from, to: Math.min(from + long, this.axis.to) });
  }

  change(date: string, from: number, span: MinuteSpan, toDate: string): void {
    this.#mark(changed(this.marked, { date, from }, { date: toDate, span }, this.taken.get(toDate) ?? []));
  }

  remove(date: string, from: number): void {
    this.#mark(removed(this.marked, date, from));
  }

  chooseZone(zone: string): void {
    // What suits stays the same time, wherever it is read.
    this.marked = inZone(this.stretches, zone);
    this.guest.chooseZone(zone);
  }

  /** Leaves out what a calendar that was just read has taken. */
  leaveOutTaken(): void {
    this.#mark(
      Object.fromEntries(
        Object.entries(this.marked).map(([date, spans]) => [date, without(spans, this.taken.get(date) ?? [])]),
      ),
    );
  }

  /** Crosses what is marked with the line-up; of several questions the latest counts. */
  async cross(): Promise<void> {
    const { stretches } = this;
    if (stretches.length === 0) return;
    const asked = ++this.#asked;
    try {
      const { counts } = await must(
        guestApi.POST('/api/public/links/{address}/suited-times/fits', {
          params: { path: { address: this.address } },
          body: { stretches: stretches.map(({ start, end }) => ({ start, end })), duration: this.guest.duration },
        }),
      );
      if (asked === this.#asked)
        this.fits = new Map(stretches.map((one, at) => [one.start + one.end, counts[at] ?? 0]));
    } catch {
      // How much fits is told at the next look; what is marked can be sent all the same.
    }
  }

  /** Sends what is marked. Returns the path of the private link where a time was booked by it. */
  async send(): Promise<string | undefined> {
    if (this.sending) return undefined;
    if (this.stretches.length === 0) {
      this.problem = { status: 400, title: say('asked.missing'), type: 'urn:loose-lantern:invalid' };
      return undefined;
    }
    const { guest } = this;
    const body = {
      stretches: this.stretches.map(({ start, end }) => ({ start, end })),
      zone: guest.zone,
      duration: guest.duration,
      name: guest.typed.name.trim() || null,
      email: guest.typed.email.trim() || null,
      guest: guest.who ?? null,
      notMe: guest.notMe,
      clock: shownClock(),
      words: this.words.trim(),
      answers: this.asks.booksByItself ? { ...guest.typed.answers } : null,
    };
    this.sending = true;
    try {
      const answer = await must(
        guestApi.POST('/api/public/links/{address}/suited-times', {
          params: {
            path: { address: this.address },
            header: { 'Idempotency-Key': this.#key.keyFor(JSON.stringify(body)) },
          },
          body,
        }),
      );
      this.problem = undefined;
      this.sent = answer.booked === null;
      return answer.booked?.path;
    } catch (thrown) {
      this.problem = problemOf(thrown);
      return undefined;
    } finally {
      this.sending = false;
    }
  }

  #mark(marked: Marked): void {
    this.marked = marked;
    this.sent = false;
    keepStretches(this.address, this.stretches);
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.cross(), ASK_AFTER);
  }
}
