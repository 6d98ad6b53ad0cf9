import type { Schemas } from '$lib/api/client';
import type { Screens } from '$lib/words/say.svelte';

/**
 * Openings written small: as runs of minutes since 1970 in UTC of the first start, minutes from one start to the next,
 * how many, minutes each, and places left.
 */
export interface FirstOpenings {
  zone: string;
  offsets: Schemas['ZoneOffsets'][];
  runs: [start: number, gap: number, count: number, minutes: number, placesLeft: number][];
}

const MINUTE = 60_000;
/** In minutes. */
const FIVE_WEEKS = 35 * 1_440;

/** The instant of a minute, written as the server writes it. */
function written(minute: number): string {
  return `${new Date(minute * MINUTE).toISOString().slice(0, 19)}Z`;
}

/**
 * The same as the server answers whoever asks for them.
 * @param until Minutes since 1970 in UTC from which on runs are left out; those of the five weeks from the first
 * one on never are, since it is in their first that a page opens.
 */
export function openingsOf({ zone, offsets, runs }: FirstOpenings, until = Infinity): Schemas['OpeningsAnswer'] {
  const first = runs[0]?.[0] ?? 0;
  const openings = runs
    .filter(([start]) => start < Math.max(until, first + FIVE_WEEKS))
    .flatMap(([start, gap, count, minutes, placesLeft]) =>
      Array.from({ length: count }, (_, at) => ({
        start: written(start + at * gap),
        end: written(start + at * gap + minutes),
        placesLeft,
      })),
    );
  return { zone, openings, offsets, shown: null };
}

/** The start of the last of them. */
export function lastOf({ runs }: FirstOpenings): string | undefined {
  const run = runs.at(-1);
  return run && written(run[0] + run[1] * (run[2] - 1));
}

/** What the server answered a guest's first request with, beside what is to be read of it at once. */
export interface FirstAnswer {
  /** Path and query that it is the answer to. */
  path: string;
  /** Tag of the language that the server takes it to be read in. */
  language: string;
  /** The phrases of that language; null where the front end has them, which is so of English. */
  screens: Screens | null;
  page?: Schemas['GuestPage'];
  link?: Schemas['GuestLink'];
  desk?: Schemas['GuestDesk'];
  /** Of the page's preset duration; null where there are none to show. */
  openings?: FirstOpenings | null;
}

/** The id of the element that bears it, as JSON. */
const ELEMENT = 'first-answer';

/** The id of the element that is drawn of it before the app has come. */
export const VIEW = 'first-view';

/** The same, so many milliseconds after it came: its clock went on. */
export function asOf(first: FirstAnswer, late: number): FirstAnswer {
  const later = (page: Schemas['GuestPage']): Schemas['GuestPage'] => ({
    ...page,
    now: new Date(Date.parse(page.now) + late).toISOString(),
  });
  return {
    ...first,
    ...(first.page ? { page: later(first.page) } : {}),
    ...(first.link ? { link: { ...first.link, page: later(first.link.page) } } : {}),
  };
}

export function readFirst(): FirstAnswer | undefined {
  const element = document.getElementById(ELEMENT);
  if (!element) return undefined;
  const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  const late = Math.max(0, Math.round(performance.now() - (navigation?.responseStart ?? 0)));
  return asOf(JSON.parse(element.textContent) as FirstAnswer, late);
}

let taken = false;

/** The first answer, where it is to this address; it is given once, since whoever asks again wants to know anew. */
export function takeFirst(url: URL): FirstAnswer | undefined {
  if (taken) return undefined;
  taken = true;
  const first = readFirst();
  return first?.path === url.pathname + url.search ? first : undefined;
}
