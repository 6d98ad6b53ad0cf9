import type { Schemas } from '$lib/api/client';
import { lineUpInWords } from '$lib/pages/form';
import { unitOf } from '$lib/pages/units';
import { language, say, sayCount, sayList, type ScreenKey } from '$lib/words/say.svelte';

/** Who is met, as a guest reads it: of each seat one of its hosts. */
export function hostsInWords(seats: readonly (readonly string[])[]): string {
  if (language() === 'en') return lineUpInWords(seats);
  return sayList(
    seats.map((seat) => sayList(seat, 'disjunction')),
    'conjunction',
  );
}

/** "1 day", "90 minutes". */
export function spanInWords(minutes: number): string {
  const unit = unitOf(minutes);
  if (unit === 1440) return sayCount(minutes / unit, 'length.days');
  return unit === 60 ? sayCount(minutes / unit, 'length.hours') : sayCount(minutes, 'length.minutes');
}

/** Until when a booking can be moved and cancelled; empty where neither can be. */
export function changesInWords(page: Pick<Schemas['GuestPage'], 'moveUntil' | 'cancelUntil'>): string {
  const { moveUntil, cancelUntil } = page;
  const until = (minutes: number, atStart: ScreenKey, before: ScreenKey): string =>
    minutes === 0 ? say(atStart) : say(before, { length: spanInWords(minutes) });
  if (moveUntil !== null && moveUntil === cancelUntil)
    return until(moveUntil, 'terms.both-to-start', 'terms.both-before');
  const said = [];
  if (moveUntil !== null) said.push(until(moveUntil, 'terms.move-to-start', 'terms.move-before'));
  if (cancelUntil !== null) said.push(until(cancelUntil, 'terms.cancel-to-start', 'terms.cancel-before'));
  return said.join(' ');
}
