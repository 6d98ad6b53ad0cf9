import { describe, expect, it } from 'vitest';
import { byOtherClock } from './both';
import { setClock, setLocale } from './format';

describe('a time by two clocks', () => {
  setClock('h24');
  setLocale('en-GB');

  it('is said by the other one too, with its day where that is another', () => {
    expect(byOtherClock('2026-12-08T17:00:00Z', 'Europe/Copenhagen', 'America/Los_Angeles')).toBe('09:00');
    expect(byOtherClock('2026-12-08T08:00:00Z', 'Europe/Copenhagen', 'America/Los_Angeles')).toBe('00:00');
    expect(byOtherClock('2026-12-08T07:30:00Z', 'Europe/Copenhagen', 'America/Los_Angeles')).toBe('Mon 7, 23:30');
    expect(byOtherClock('2026-12-08T17:00:00Z', 'Europe/Copenhagen', 'Australia/Sydney')).toBe('Wed 9, 04:00');
  });

  it('is said once where both clocks show the same at that moment, and not at others', () => {
    expect(byOtherClock('2026-12-08T17:00:00Z', 'Europe/Copenhagen', 'Europe/Paris')).toBeUndefined();
    // London and Lisbon go together; Casablanca and London do not all year.
    expect(byOtherClock('2026-12-08T17:00:00Z', 'Europe/London', 'Europe/Lisbon')).toBeUndefined();
    // New York changes its clock weeks before Copenhagen: 6 hours become 5.
    expect(byOtherClock('2026-03-20T15:00:00Z', 'Europe/Copenhagen', 'America/New_York')).toBe('11:00');
    expect(byOtherClock('2026-04-02T14:00:00Z', 'Europe/Copenhagen', 'America/New_York')).toBe('10:00');
  });
});
