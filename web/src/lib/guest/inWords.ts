import type { Schemas } from '$lib/api/client';
import { lineUpInWords } from '$lib/pages/form';
import { unitOf } from '$lib/pages/units';
import { language, say, sayCount, sayList } from '$lib/words/say.svelte';

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
  if (unit === 1440) return sayCount(minutes / unit, '{n} day', '{n} days');
  return unit === 60
    ? sayCount(minutes / unit, '{n} hour', '{n} hours')
    : sayCount(minutes, '{n} minute', '{n} minutes');
}

/** Until when a booking can be moved and cancelled; empty where neither can be. */
export function changesInWords(page: Pick<Schemas['GuestPage'], 'moveUntil' | 'cancelUntil'>): string {
  const { moveUntil, cancelUntil } = page;
  const until = (minutes: number, zero: string, before: string): string =>
    minutes === 0 ? say(zero) : say(before, { length: spanInWords(minutes) });
  if (moveUntil !== null && moveUntil === cancelUntil)
    return until(
      moveUntil,
      'You can move or cancel it until it begins.',
      'You can move or cancel it until {length} before.',
    );
  const said = [];
  if (moveUntil !== null)
    said.push(until(moveUntil, 'You can move it until it begins.', 'You can move it until {length} before.'));
  if (cancelUntil !== null)
    said.push(until(cancelUntil, 'You can cancel it until it begins.', 'You can cancel it until {length} before.'));
  return said.join(' ');
}
