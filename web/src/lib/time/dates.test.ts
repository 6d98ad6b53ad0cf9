import { describe, expect, it } from 'vitest';
import { mondayOf, plusDays } from './dates';

describe('dates', () => {
  it.each([
    ['2026-12-31', 1, '2027-01-01'],
    ['2027-01-01', -1, '2026-12-31'],
    ['2028-02-28', 1, '2028-02-29'],
    ['2026-03-28', 2, '2026-03-30'],
  ])('%s and %i days are %s', (date, days, then) => expect(plusDays(date, days)).toBe(then));

  it.each([
    ['2026-12-07', '2026-12-07'],
    ['2026-12-13', '2026-12-07'],
    ['2027-01-01', '2026-12-28'],
  ])('%s lies in the week from %s', (date, monday) => expect(mondayOf(date)).toBe(monday));
});
