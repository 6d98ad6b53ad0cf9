import { describe, expect, it } from 'vitest';
import { areSame, byDate, datesOf, partOf, shownIn, weeksBetween } from './days';

const opening = (start: string) => ({ start, end: start, placesLeft: 1 });

describe('openings as the reader sees them', () => {
  it('lie on the date and in the part of the day of the zone that is shown', () => {
    const openings = [opening('2026-12-08T23:30:00Z')];
    expect(shownIn('Europe/Copenhagen', openings)[0]).toMatchObject({ date: '2026-12-09', part: 'morning' });
    expect(shownIn('America/Halifax', openings)[0]).toMatchObject({ date: '2026-12-08', part: 'evening' });
    expect(shownIn('Asia/Tokyo', openings)[0]).toMatchObject({ date: '2026-12-09', part: 'morning' });
  });

  it('keep both passes of an hour that a clock repeats', () => {
    const shown = shownIn('Europe/Copenhagen', [opening('2026-10-25T00:30:00Z'), opening('2026-10-25T01:30:00Z')]);
    expect(byDate(shown).get('2026-10-25')).toHaveLength(2);
  });

  it.each([
    [0, 'morning'],
    [11, 'morning'],
    [12, 'afternoon'],
    [16, 'afternoon'],
    [17, 'evening'],
    [23, 'evening'],
  ])('puts %i o’clock into the %s', (hour, part) => expect(partOf(hour)).toBe(part));
});

it('answers offer the same only where each opening is alike', () => {
  const one = [opening('2026-12-08T08:00:00Z'), opening('2026-12-08T08:30:00Z')];
  expect(areSame(one, structuredClone(one))).toBe(true);
  expect(areSame(one, undefined)).toBe(false);
  expect(areSame(one, one.slice(1))).toBe(false);
  expect(areSame(one, [opening('2026-12-08T08:00:00Z'), opening('2026-12-08T09:00:00Z')])).toBe(false);
  expect(areSame(one, [opening('2026-12-08T08:00:00Z'), { ...opening('2026-12-08T08:30:00Z'), placesLeft: 2 }])).toBe(
    false,
  );
});

describe('weeks', () => {
  it('begin on Monday and hold only the dates that are offered', () => {
    const weeks = weeksBetween('2026-12-31', '2027-01-05');
    expect(weeks.map((week) => week.monday)).toEqual(['2026-12-28', '2027-01-04']);
    expect(weeks[0]?.dates).toEqual(['2026-12-31', '2027-01-01', '2027-01-02', '2027-01-03']);
  });

  it('have seven dates over the end of a month', () => expect(datesOf('2026-11-30').at(-1)).toBe('2026-12-06'));

  it('of one day are one week', () => expect(weeksBetween('2026-12-06', '2026-12-06')).toHaveLength(1));
});
