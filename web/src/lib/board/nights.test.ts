import { describe, expect, it } from 'vitest';
import { isNight, nightsOn } from './nights';

describe('the night of somebody elsewhere', () => {
  it('lasts from 21 to 7 on their clock', () => {
    expect(isNight('2026-12-08T05:00:00Z', 'America/Los_Angeles')).toBe(true);
    expect(isNight('2026-12-08T04:59:00Z', 'America/Los_Angeles')).toBe(false);
    expect(isNight('2026-12-08T14:59:00Z', 'America/Los_Angeles')).toBe(true);
    expect(isNight('2026-12-08T15:00:00Z', 'America/Los_Angeles')).toBe(false);
  });

  it('is shown on the wall clock of the board', () => {
    // Nine hours behind: 21 to 7 there is 06:00 to 16:00 here.
    expect(nightsOn('2026-12-08', 'Europe/Copenhagen', 'America/Los_Angeles')).toEqual([{ from: 360, to: 960 }]);
    expect(nightsOn('2026-12-08', 'Europe/Copenhagen', 'Europe/Copenhagen')).toEqual([
      { from: 0, to: 420 },
      { from: 1260, to: 1440 },
    ]);
    // Five and a half hours ahead.
    expect(nightsOn('2026-12-08', 'UTC', 'Asia/Kolkata')).toEqual([
      { from: 0, to: 90 },
      { from: 930, to: 1440 },
    ]);
  });

  it('keeps the distance of each day where only one clock has changed', () => {
    // Until 28 March New York is five hours behind Copenhagen, from then on six.
    expect(nightsOn('2027-03-27', 'Europe/Copenhagen', 'America/New_York')).toEqual([{ from: 120, to: 720 }]);
    expect(nightsOn('2027-03-29', 'Europe/Copenhagen', 'America/New_York')).toEqual([{ from: 180, to: 780 }]);
  });
});
