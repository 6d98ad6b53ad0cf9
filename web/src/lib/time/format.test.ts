import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { cityOf, sameClock } from './clock';
import { counted, dateIn, lengthOf, setClock, timeOf } from './format';

describe('words for times', () => {
  it.each([
    [20, '20 min'],
    [60, '1 h'],
    [90, '1 h 30'],
    [125, '2 h 05'],
  ])('says %i minutes as %s', (minutes, words) => expect(lengthOf(minutes)).toBe(words));

  it('counts one and many', () => {
    expect(counted(1, 'opening', 'openings')).toBe('1 opening');
    expect(counted(0, 'opening', 'openings')).toBe('0 openings');
  });

  it('takes the date of the zone', () => {
    expect(dateIn('2026-12-31T23:30:00Z', 'Europe/Copenhagen')).toBe('2027-01-01');
    expect(dateIn('2026-12-31T23:30:00Z', 'America/Halifax')).toBe('2026-12-31');
  });

  it('shows times by the clock a person chose', () => {
    setClock('h12');
    expect(timeOf('2026-12-08T13:05:00Z', 'Europe/Copenhagen')).toMatch(/^2:05.pm$/i);
    setClock('h24');
    expect(timeOf('2026-12-08T23:05:00Z', 'Europe/Copenhagen')).toBe('00:05');
    setClock(undefined);
  });

  it('names a zone by its city', () => expect(cityOf('America/Argentina/Buenos_Aires')).toBe('Buenos Aires'));

  it('knows when two zones show one clock', () => {
    const winter = Temporal.Instant.from('2026-12-08T12:00:00Z');
    expect(sameClock('Europe/Copenhagen', 'Europe/Paris', winter)).toBe(true);
    expect(sameClock('Europe/Copenhagen', 'Europe/Dublin', winter)).toBe(false);
  });
});
