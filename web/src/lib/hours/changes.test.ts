import { describe, expect, it } from 'vitest';
import { changeInWords, covers, datesInWords, effectInWords, runsOfYear, type Change } from './changes';

const change = (from: string, to: string, more: Partial<Change> = {}): Change => ({
  from,
  to,
  open: [],
  name: null,
  weekdays: null,
  ...more,
});

describe('a dated change', () => {
  it('covers only its weekdays', () => {
    const wednesdays = change('2026-12-01', '2026-12-20', { weekdays: ['wed'] });
    expect(['2026-12-02', '2026-12-03', '2026-12-16', '2026-12-23'].map((date) => covers(wednesdays, date))).toEqual([
      true,
      false,
      true,
      false,
    ]);
  });

  it('is said in words', () => {
    expect(datesInWords(change('2026-12-01', '2026-12-20', { weekdays: ['wed', 'fri'] }))).toMatch(
      /^all Wednesdays and Fridays from /,
    );
    expect(changeInWords(change('2026-12-24', '2026-12-24', { name: 'Yule' }))).toBe('closed, Yule');
    expect(changeInWords(change('2026-12-24', '2026-12-24', { open: [{ from: '09:00', to: '11:00' }] }))).toBe(
      '09:00–11:00',
    );
  });
});

describe('a year’s strip', () => {
  it('shows each run of changed dates, by the last change that covers them', () => {
    const changes = [
      change('2026-12-10', '2026-12-14'),
      change('2026-12-12', '2026-12-12', { open: [{ from: '09:00', to: '11:00' }] }),
    ];
    expect(runsOfYear(changes, '2026-12-08', 365)).toEqual([
      { day: 2, length: 2, index: 0, closed: true },
      { day: 4, length: 1, index: 1, closed: false },
      { day: 5, length: 2, index: 0, closed: true },
    ]);
  });

  it('is cut at its ends', () =>
    expect(runsOfYear([change('2026-12-01', '2027-12-31')], '2026-12-08', 10)).toEqual([
      { day: 0, length: 10, index: 0, closed: true },
    ]));
});

describe('what a change does', () => {
  const effect = {
    pageId: 'p',
    title: 'Hull survey',
    state: 'published' as const,
    before: 40,
    after: 28,
    gained: 0,
    lost: 12,
  };
  it.each([
    [effect, 'Hull survey: 12 fewer in the next 4 weeks'],
    [{ ...effect, gained: 3 }, 'Hull survey: 3 more and 12 fewer in the next 4 weeks'],
    [{ ...effect, lost: 0 }, 'Hull survey: no change in the next 4 weeks'],
  ])('is said by page', (given, words) => expect(effectInWords(given)).toBe(words));
});
