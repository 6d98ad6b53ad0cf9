import { expect, it } from 'vitest';
import { loadInWords } from './load';

it('says how much somebody has around a booking', () => {
  expect(loadInWords({ onDay: 0, inWeek: 1, isOfPage: true })).toBe('1 booking that week');
  expect(loadInWords({ onDay: 2, inWeek: 5, isOfPage: false })).toBe(
    '5 bookings that week, 2 that day; not on this page',
  );
});
