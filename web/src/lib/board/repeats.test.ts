import { describe, expect, it } from 'vitest';
import { dayMonth } from '$lib/time/format';
import { lastDateMend, lastDateOf, monthlyChoices, ruleInWords, ruleOf, type Repeat } from './repeats';

const date = '2026-12-08';
// As the machine's language has it.
const feb = dayMonth('2027-02-01');
const repeat = (change: Partial<Repeat>): Repeat => ({
  how: 'weekly',
  every: 1,
  days: [],
  ends: 'until',
  until: '2027-02-01',
  count: 10,
  ...change,
});

describe('how a block comes again', () => {
  it.each([
    [repeat({ how: 'once' }), null, ''],
    [repeat({}), 'FREQ=WEEKLY;BYDAY=TU;UNTIL=20270201T235959', `, every week on Tuesday, until ${feb}`],
    [
      repeat({ days: ['FR', 'MO'], every: 2, ends: 'count' }),
      'FREQ=WEEKLY;BYDAY=MO,FR;INTERVAL=2;COUNT=10',
      ', every 2 weeks on Monday and Friday, 10 times',
    ],
    [repeat({ how: 'daily' }), 'FREQ=DAILY;UNTIL=20270201T235959', `, every day, until ${feb}`],
    [
      repeat({ how: 'monthlyDate' }),
      'FREQ=MONTHLY;BYMONTHDAY=8;UNTIL=20270201T235959',
      `, on the 8th of every month, until ${feb}`,
    ],
    [
      repeat({ how: 'monthlyDay', every: 3 }),
      'FREQ=MONTHLY;BYDAY=2TU;INTERVAL=3;UNTIL=20270201T235959',
      `, on the second Tuesday of every 3 months, until ${feb}`,
    ],
  ] as const)('is a rule, and words for it', (chosen, rule, words) => {
    expect(ruleOf(chosen, date)).toBe(rule);
    if (rule !== null) expect(ruleInWords(rule)).toBe(words);
  });

  it.each([
    ['FREQ=YEARLY', ', every year'],
    ['FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1', ', every month on Monday and Tuesday, of these the last one'],
    ['FREQ=DAILY;BYMONTH=1;COUNT=3', ', every day in January, 3 times'],
    [
      'FREQ=YEARLY;INTERVAL=2;BYMONTH=6,12;BYDAY=2MO,-2FR',
      ', every 2 years in June and December on the second Monday and the 2nd last Friday',
    ],
    ['FREQ=MONTHLY;BYMONTHDAY=1,-1', ', every month on the first and last day of the month'],
    ['FREQ=MONTHLY;BYMONTHDAY=-2', ', every month on the 2nd last day of the month'],
    ['FREQ=YEARLY;BYYEARDAY=1,100', ', every year on the first and 100th day of the year'],
    ['FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO', ', every year in the 20th week of the year on Monday'],
    ['FREQ=WEEKLY;INTERVAL=2;WKST=SU;BYDAY=TU', ', every 2 weeks on Tuesday, weeks beginning on Sunday'],
    ['FREQ=WEEKLY;WKST=SU;BYDAY=TU', ', every week on Tuesday'],
    ['FREQ=HOURLY;INTERVAL=3;BYHOUR=9,12;BYMINUTE=30', ', every 3 hours at hour 9 and 12 at minute 30'],
    ['FREQ=MONTHLY;BYDAY=5MO', ', on the 5th Monday of every month'],
    ['FREQ=DAILY;X-MOON=FULL', ', every day, X-MOON=FULL'],
  ])('says any other rule in words: %s', (rule, words) => {
    expect(ruleInWords(rule)).toBe(words);
  });

  it('quotes what is no rule', () => {
    expect(ruleInWords('FREQ=NEVER')).toBe(', as it came: FREQ=NEVER');
  });

  it('knows the last of its weekday in a month', () => {
    expect(ruleOf(repeat({ how: 'monthlyDay' }), '2026-12-29')).toContain('BYDAY=-1TU');
    expect(monthlyChoices('2026-12-29').monthlyDay).toBe('Monthly on the last Tuesday');
  });

  it('ends no sooner than it begins', () => {
    expect(lastDateMend(repeat({ until: '2026-12-07' }), date)).toContain('choose a last date');
    expect(lastDateMend(repeat({ until: date }), date)).toBeUndefined();
    expect(lastDateMend(repeat({ until: '2026-12-07', ends: 'count' }), date)).toBeUndefined();
    expect(lastDateOf({ start: '2026-12-08T09:00:00', rule: null })).toBe(date);
    expect(lastDateOf({ start: '2026-12-08T09:00:00', rule: 'FREQ=DAILY;UNTIL=20270201T235959' })).toBe('2027-02-01');
    expect(lastDateOf({ start: '2026-12-08T09:00:00', rule: 'FREQ=DAILY;COUNT=3' })).toBeUndefined();
  });
});
