import { describe, expect, it } from 'vitest';
import { blankOn, entryInWords, entryOf, typedOf } from './entries';

describe('an entry of the calendar that is kept here', () => {
  const typed = { ...blankOn('2026-12-08'), title: 'Dentist' };

  it('ends on its last day where it is whole days', () => {
    const days = { ...typed, wholeDay: true, to: '2026-12-10' };
    expect(entryOf(days)).toMatchObject({ start: '2026-12-08T00:00:00', end: '2026-12-11T00:00:00' });
    expect(typedOf(entryOf(days))).toMatchObject({ from: '2026-12-08', to: '2026-12-10', wholeDay: true });
  });

  it('comes back as it was typed', () => {
    const weekly = { ...typed, repeats: 'weekly' as const, until: '2027-01-05', shows: 'tentative' as const };
    expect(typedOf(entryOf(weekly))).toEqual(weekly);
    expect(entryOf({ ...weekly, repeats: 'once' }).until).toBeNull();
  });

  it('is said in words', () => {
    expect(entryInWords(entryOf(typed))).toMatch(/^Tue .*8.*, 09:00 to 10:00$/);
    expect(entryInWords(entryOf({ ...typed, wholeDay: true, repeats: 'weekly' }))).toMatch(
      /^every Tue from .*, whole day$/,
    );
    expect(entryInWords(entryOf({ ...typed, shows: 'free' }))).toContain('free');
  });
});
