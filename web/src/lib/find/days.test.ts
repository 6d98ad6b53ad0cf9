import { describe, expect, it } from 'vitest';
import { dayOf } from './days';

// A Monday.
const today = '2026-12-07';

describe('a day that is typed', () => {
  it.each([
    ['today', '2026-12-07'],
    ['Tomorrow', '2026-12-08'],
    ['mon', '2026-12-07'],
    ['tue', '2026-12-08'],
    ['sunday', '2026-12-13'],
    ['8 dec', '2026-12-08'],
    ['8. december', '2026-12-08'],
    ['Dec 8, 2027', '2027-12-08'],
    ['8.12.', '2026-12-08'],
    ['2026-12-8', '2026-12-08'],
    ['2 jan', '2027-01-02'],
    ['30 june', '2026-06-30'],
    ['29 feb 2028', '2028-02-29'],
  ])('%s is %s', (typed, date) => expect(dayOf(typed, today)).toBe(date));

  it.each(['tu', 'ma', 'marit', '31 feb', '13.13.', '40 dec', '8', '29 feb 2027', 'decorate 8 boats'])(
    '%s is none',
    (typed) => expect(dayOf(typed, today)).toBeUndefined(),
  );
});
