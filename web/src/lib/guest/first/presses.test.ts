import { expect, it } from 'vitest';
import { thatCount } from './presses';

it('of openings and weeks that were pressed only the last counts, and all else in its order', () => {
  const more = { of: ':is(button)', at: 3 };
  const week = { of: '[data-week="2026-12-14"]', at: 0 };
  const opening = { of: '[data-start="2026-12-08T08:00:00Z"]', at: 0 };
  expect(thatCount([week, more, opening, more])).toEqual([more, opening, more]);
  expect(thatCount([opening, week])).toEqual([week]);
  expect(thatCount([])).toEqual([]);
});
