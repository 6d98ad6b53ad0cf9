import type { Schemas } from '$lib/api/client';

type Run = Schemas['OffsetFrom'];

/** A point in time: written with its offset, in milliseconds since 1970 in UTC, or as a Temporal.Instant. */
export type Moment = string | number | { readonly epochMilliseconds: number };

/** Milliseconds since 1970 in UTC. */
export function epochOf(at: Moment): number {
  if (typeof at === 'number') return at;
  return typeof at === 'string' ? Date.parse(at) : at.epochMilliseconds;
}

/** Of the zones that the server told of, its runs, where this browser's own tables say otherwise of one of them. */
const told = new Map<string, readonly Run[]>();

const MINUTE = 60_000;
const WEEK = 7 * 86_400_000;

/** What tells the minutes of some zones sooner than the browser's tables. */
let quick: ((at: number, zone: string) => number | undefined) | undefined;

/**
 * Asks this before the browser's tables, which take long to be there, from now on; and takes the server's word for all
 * that it tells, without comparing.
 */
export function countQuickly(minutes: (at: number, zone: string) => number | undefined): void {
  quick = minutes;
}

const clocks = new Map<string, Intl.DateTimeFormat>();

/** What the browser's tables say, asked for one instant. */
function asked(at: number, zone: string): number {
  const quickly = quick?.(at, zone);
  if (quickly !== undefined) return quickly;
  const clock =
    clocks.get(zone) ??
    new Intl.DateTimeFormat('en-US', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
    });
  clocks.set(zone, clock);
  const parts = new Map(clock.formatToParts(at).map(({ type, value }) => [type, Number(value)]));
  const part = (type: Intl.DateTimeFormatPartTypes): number => parts.get(type) ?? 0;
  const wall = Date.UTC(part('year'), part('month') - 1, part('day'), part('hour'), part('minute'));
  return Math.round((wall - at) / MINUTE);
}

// Asking takes long, and a screen shows thousands of times. No clock changes twice within a week, so that one whose
// ends are alike is alike all through.
const weeks = new Map<string, Map<number, number>>();

function browsersMinutes(at: number, zone: string): number {
  const week = Math.floor(at / WEEK);
  const ofZone = weeks.get(zone) ?? new Map<number, number>();
  weeks.set(zone, ofZone);
  const atStartOf = (one: number): number => {
    const known = ofZone.get(one) ?? asked(one * WEEK, zone);
    ofZone.set(one, known);
    return known;
  };
  const first = atStartOf(week);
  return first === atStartOf(week + 1) ? first : asked(at, zone);
}

/**
 * Takes the server's word for how far clocks are ahead: the mails about what is shown here go by it.
 * @returns Whether something is counted otherwise from now on, as far as can be told.
 */
export function learnOffsets(offsets: readonly Schemas['ZoneOffsets'][]): boolean {
  let isNews = false;
  for (const { zone, runs } of offsets) {
    const differs = quick !== undefined || runs.some((run) => !isKnownAs(run, zone));
    isNews ||= differs || told.has(zone);
    if (differs) told.set(zone, runs);
    else told.delete(zone);
  }
  return isNews;
}

function isKnownAs(run: Run, zone: string): boolean {
  try {
    return browsersMinutes(Date.parse(run.from), zone) === run.minutes;
  } catch {
    // A browser may know nothing of a zone.
    return false;
  }
}

/**
 * How many minutes the clock of a zone is ahead of UTC at an instant: by this browser's tables, or where the server has
 * other ones, by those.
 * @throws RangeError where neither knows the zone.
 */
export function minutesAt(at: Moment, zone: string): number {
  const when = epochOf(at);
  const run = told.get(zone)?.findLast((one) => Date.parse(one.from) <= when);
  // Beyond what was told the browser's own tables are as good as any.
  return run?.minutes ?? browsersMinutes(when, zone);
}

/** What the clock of a zone shows at an instant, as the UTC of a date. */
export function wallClock(at: Moment, zone: string): Date {
  return new Date(epochOf(at) + minutesAt(at, zone) * MINUTE);
}
