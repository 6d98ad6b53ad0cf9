import { byOtherClock } from '$lib/time/both';
import { cityOf } from '$lib/time/clock';
import { say } from '$lib/words/say.svelte';

/** "18:00 in Copenhagen": a time by the other clock that stands beside it; empty where both show the same then. */
export function beside(start: string, here: string, there: string): string {
  const time = byOtherClock(start, here, there);
  return time === undefined ? '' : say('zone.other-clock', { time, city: cityOf(there) });
}

/** The same in brackets behind what a press does. */
export function inBrackets(other: string): string {
  return other === '' ? '' : ` (${other})`;
}
