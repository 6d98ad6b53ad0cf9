import { Temporal } from 'temporal-polyfill';
import { lastDateOf } from '$lib/board/repeats';
import type { PageForm } from './form';
import type { Schemas } from '$lib/api/client';

/**
 * What guests would not know of the place; undefined where it is said.
 * @param hostsRing By phone: whether the hosts ring, and so need no number of ours.
 */
export function missingPlace(kind: Schemas['PlaceKind'], place: string, hostsRing: boolean): string | undefined {
  if (place.trim() !== '') return undefined;
  if (kind === 'inPerson') return 'It’s in person, but no place is given.';
  if (kind === 'phone' && !hostsRing) return 'Guests are to call, but no number is given.';
  return kind === 'ownWords' ? 'No place is given.' : undefined;
}

const MOST_DAYS = 365;

/** Office hours that lie beyond the days a page offers, and how many days would have them; undefined for none. */
export function blocksBeyond(form: PageForm, today: string): { last: string; days: number } | undefined {
  const { blocks, window, aheadDays } = form.times;
  if (!blocks || window) return undefined;
  const last = blocks.list
    .map(lastDateOf)
    .filter((date) => date !== undefined)
    .sort()
    .at(-1);
  if (last === undefined) return undefined;
  const days = Temporal.PlainDate.from(today).until(Temporal.PlainDate.from(last), { largestUnit: 'days' }).days;
  return days > aheadDays && aheadDays < MOST_DAYS ? { last, days: Math.min(days, MOST_DAYS) } : undefined;
}
