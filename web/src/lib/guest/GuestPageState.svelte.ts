import type { Schemas } from '$lib/api/client';
import { problemOf, type Problem } from '$lib/api/problem';
import { watchChanges } from '$lib/live/changes';
import { ServerClock, ownZone } from '$lib/time/clock';
import { plusDays } from '$lib/time/dates';
import { dateIn, shownClock } from '$lib/time/format';
import { learnOffsets, wallClock } from '$lib/time/offsets';
import { areSame, byDate, shownIn, weeksBetween, type ShownOpening } from './days';
import { keep, keepZone, keptOf, keptZoneOf, type Typed } from './kept';
import type { Taken } from './taken';
import type { GuestSource, Known, Reserved } from './source';
import { WishKey } from './WishKey';

/** How many days more are looked at in one go. */
const DAYS_SHOWN = 183;
const REFRESH_EVERY = 60_000;

/**
 * What a guest sees of one page: its openings in the zone and duration that are chosen, and the time that is being
 * reserved.
 */
export class GuestPageState {
  readonly page: Schemas['GuestPage'];
  readonly clock: ServerClock;
  /** The reader's zone: where the one a link is for was said to be, or else that of this browser. */
  readonly own: string;
  readonly typed = $state<Typed>({ name: '', email: '', answers: {} });
  zone = $state('');
  duration = $state(0);
  now = $state.raw(0);
  openings = $state.raw<Schemas['Opening'][] | undefined>(undefined);
  chosen = $state.raw<ShownOpening | undefined>(undefined);
  week = $state('');
  problem = $state.raw<Problem | undefined>(undefined);
  loadProblem = $state.raw<Problem | undefined>(undefined);
  nearest = $state.raw<Schemas['Opening'][]>([]);
  reserving = $state(false);
  /** The code that was mailed, where the page wants an address proven. */
  code = $state('');
  asksCode = $state(false);
  /** How many come, the guest too; asked where a session takes several. */
  party = $state(1);
  /** Whom it is booked for, where that is somebody else. */
  readonly other = $state<{ isOn: boolean; name: string; email: string; mailTo: Schemas['MailGoesTo'] }>({
    isOn: false,
    name: '',
    email: '',
    mailTo: 'both',
  });
  /** Whether a link's one guest says that it is somebody else. */
  notMe = $state(false);
  /** Which of several known guests this is; undefined for somebody else. */
  who = $state<number | undefined>(undefined);
  /** Whether the reader's own time stands beside that of the place. */
  alsoMine = $state(false);
  /** What a calendar of the guest's own has taken; it is read here and sent nowhere. */
  taken = $state.raw<Taken[]>([]);
  calendarNote = $state.raw<{ isRead: boolean; count: number } | undefined>(undefined);

  readonly shown = $derived(shownIn(this.zone, this.openings ?? []));
  readonly days = $derived(byDate(this.shown));
  readonly today = $derived(dateIn(this.now, this.zone || 'UTC'));
  readonly hourNow = $derived(wallClock(this.now, this.zone || 'UTC').getUTCHours());
  readonly weeks = $derived.by(() => weeksBetween(this.#first(), this.#last()));
  #daysShown = $state(DAYS_SHOWN);
  readonly #end = $derived.by(() => plusDays(this.page.firstDate, this.#daysShown));
  /** Whether the page offers more than was looked at. */
  readonly hasLater = $derived.by(() => this.#end < this.page.lastDate);
  readonly nearestShown = $derived(shownIn(this.zone, this.nearest));

  #isWatched = false;
  #lastStart: string | undefined;
  readonly #key = new WishKey();
  readonly #source: GuestSource;
  readonly #looked = new Set<string>();

  constructor(source: GuestSource) {
    const { page } = source;
    this.#source = source;
    this.page = page;
    this.clock = new ServerClock(page.now);
    this.own = page.guestZone || ownZone();
    this.zone = this.#openingZone();
    this.duration = page.durations[0] ?? 30;
    this.now = this.clock.now();
    const kept = source.isNew ? undefined : keptOf(source.name);
    // What is asked no more has no answer any more.
    if (kept)
      Object.assign(this.typed, kept, {
        answers: Object.fromEntries(
          Object.entries(kept.answers).filter(([key]) => page.questions.some((question) => question.key === key)),
        ),
      });
    // Only a personal address tells who it is for.
    if (page.guest) Object.assign(this.typed, page.guest);
  }

  /** The zone whose hour stands beside that of the one that is shown; the same where none does. */
  get otherZone(): string {
    if (this.page.isPlaceZoneOnly) return this.alsoMine ? this.own : this.page.zone;
    return this.zone === this.page.zone ? this.own : this.page.zone;
  }

  get known(): Known | undefined {
    return this.#source.known;
  }

  get isPreview(): boolean {
    return this.#source.isPreview;
  }

  /** Keeps what is typed for as long as the tab is open. */
  keepTyped(): void {
    keep(this.#source.name, $state.snapshot(this.typed));
  }

  /** Keeps the time and the openings current until the returned function is called. */
  watch(): () => void {
    this.#isWatched = true;
    const tick = setInterval(() => (this.now = this.clock.now()), 10_000);
    const refresh = setInterval(() => void this.load(), REFRESH_EVERY);
    // An opening that somebody takes, or that a calendar closes, goes from the screen at once.
    const unwatch = watchChanges(this.#source.changes, () => void this.load());
    return () => {
      clearInterval(tick);
      clearInterval(refresh);
      unwatch();
      this.#isWatched = false;
    };
  }

  /**
   * Shows openings as the server answered.
   * @param last The start of the last, where not all of them are taken.
   */
  take(answer: Schemas['OpeningsAnswer'], last?: string): void {
    this.#lastStart = last;
    const isClockNews = learnOffsets(answer.offsets ?? []);
    // A page may show only starts that stand apart; the others can be booked all the same.
    const shown = answer.shown ? new Set(answer.shown) : undefined;
    const openings = shown ? answer.openings.filter((opening) => shown.has(opening.start)) : answer.openings;
    // What is so still is not drawn again.
    if (isClockNews || !areSame(openings, this.openings)) this.openings = openings;
    this.loadProblem = undefined;
    this.now = this.clock.now();
    if (!this.weeks.some((week) => week.monday === this.week)) this.week = this.#firstWeekWithOpenings();
  }

  async load(): Promise<void> {
    const [duration, party] = [this.duration, this.party];
    try {
      const answer = await this.#source.openings({
        from: this.page.firstDate,
        to: this.hasLater ? this.#end : this.page.lastDate,
        duration: String(duration),
        zone: this.own,
        ...(party > 1 ? { party: String(party) } : {}),
      });
      // Somebody who has gone on looks at it no more.
      if (duration !== this.duration || party !== this.party || !this.#isWatched) return;
      this.take(answer);
      this.#countLook(this.week);
    } catch (thrown) {
      this.loadProblem = problemOf(thrown);
    }
  }

  async chooseDuration(duration: number): Promise<void> {
    this.duration = duration;
    this.leave();
    this.openings = undefined;
    await this.load();
  }

  /** Only times with a place for each who comes are shown. */
  async chooseParty(party: number): Promise<void> {
    this.party = party;
    this.leave();
    this.openings = undefined;
    await this.load();
  }

  chooseZone(zone: string): void {
    this.zone = zone;
    keepZone(this.#source.name, zone);
    if (this.chosen) this.chosen = shownIn(zone, [this.chosen])[0];
    if (!this.weeks.some((week) => week.monday === this.week)) this.week = this.#firstWeekWithOpenings();
  }

  /** Looks further ahead, and turns to what is open there first. */
  async showLater(): Promise<void> {
    const end = this.#end;
    this.#daysShown += DAYS_SHOWN;
    await this.load();
    const later = this.after(end);
    const week = later && this.weeks.find((candidate) => candidate.dates.includes(later.date));
    if (week) this.turnTo(week.monday);
  }

  turnTo(monday: string): void {
    this.week = monday;
    this.#countLook(monday);
  }

  choose(opening: ShownOpening): void {
    if (opening.start !== this.chosen?.start) this.#source.look(opening.date, opening.part, true);
    this.chosen = opening;
    this.problem = undefined;
    this.nearest = [];
    this.week = this.weeks.find((week) => week.dates.includes(opening.date))?.monday ?? this.week;
  }

  leave(): void {
    this.chosen = undefined;
    this.problem = undefined;
    this.nearest = [];
  }

  /** The next opening after a date, for a day that has none. */
  after(date: string): ShownOpening | undefined {
    return this.shown.find((opening) => opening.date > date);
  }

  forgetCalendar(): void {
    this.taken = [];
    this.calendarNote = undefined;
  }

  /**
   * Reserves the chosen opening. Returns what became of it, or undefined where `problem` says what stood in the way.
   * @param oneMore Whether one more place is meant, of a session that the guest is in already.
   */
  async reserve(oneMore = false): Promise<Reserved | undefined> {
    const opening = this.chosen;
    if (!opening || this.reserving) return undefined;
    const body = {
      start: opening.start,
      duration: this.duration,
      // Beside the place's hour stood the reader's, unless the page shows none but the place's.
      zone: this.page.isPlaceZoneOnly && !this.alsoMine ? this.page.zone : this.own,
      clock: shownClock(),
      guest: { name: this.typed.name.trim(), email: this.typed.email.trim() },
      answers: { ...this.typed.answers },
      ...(this.code.trim() === '' ? {} : { code: this.code.trim() }),
      for: this.other.isOn
        ? { name: this.other.name.trim(), email: this.other.email.trim(), mailTo: this.other.mailTo }
        : null,
      party: this.page.mostParty > 1 ? this.party : null,
      oneMore,
    };
    this.reserving = true;
    try {
      const reserved = await this.#source.reserve(
        body,
        this.#key.keyFor(JSON.stringify({ ...body, code: undefined, who: this.who, notMe: this.notMe })),
        { who: this.who, notMe: this.notMe },
      );
      this.problem = undefined;
      if (reserved.kind === 'booked') keep(this.#source.name, undefined);
      return reserved;
    } catch (thrown) {
      this.problem = problemOf(thrown);
      if (this.problem.type === 'urn:loose-lantern:code-needed') this.asksCode = true;
      if (this.problem.status === 409) {
        this.nearest = (this.problem.nearest as Schemas['Opening'][] | undefined) ?? [];
        await this.load();
      }
      return undefined;
    } finally {
      this.reserving = false;
    }
  }

  /** Each week is counted once a visit. */
  #countLook(monday: string): void {
    if (monday === '' || this.#looked.has(monday)) return;
    this.#looked.add(monday);
    const dates = this.weeks.find((week) => week.monday === monday)?.dates ?? [];
    this.#source.look(
      monday,
      undefined,
      dates.some((date) => this.days.has(date)),
    );
  }

  /** What was chosen before; else the place's zone where people meet there, and the reader's where they do not. */
  #openingZone(): string {
    const { page } = this;
    if (page.isPlaceZoneOnly) return page.zone;
    const kept = this.#source.isNew ? undefined : keptZoneOf(this.#source.name);
    if (kept === page.zone || kept === this.own) return kept;
    return page.placeKind === 'inPerson' ? page.zone : this.own;
  }

  #first(): string {
    const first = this.shown[0]?.date;
    return first !== undefined && first < this.page.firstDate ? first : this.page.firstDate;
  }

  /** Only as far as there is something to see, and four weeks at least. */
  #last(): string {
    const fourWeeks = plusDays(this.page.firstDate, 27);
    const offered = this.page.lastDate < fourWeeks ? this.page.lastDate : fourWeeks;
    const last = this.#lastStart === undefined ? this.shown.at(-1)?.date : dateIn(this.#lastStart, this.zone);
    return last !== undefined && last > offered ? last : offered;
  }

  #firstWeekWithOpenings(): string {
    const first = this.shown[0]?.date;
    const week = first === undefined ? undefined : this.weeks.find((candidate) => candidate.dates.includes(first));
    return (week ?? this.weeks[0])?.monday ?? '';
  }
}
