import { describe, expect, it } from 'vitest';
import { hoursInWords, lineUpInWords, usualHours } from './form';

describe('hours in words', () => {
  it('join days that are alike and leave out closed ones', () => {
    const hours = usualHours('Europe/Copenhagen');
    hours.week.wed = [{ from: '10:00', to: '11:00' }];
    expect(hoursInWords(hours)).toBe('Mon–Tue 09:00–12:00, 13:00–17:00; Wed 10:00–11:00; Thu–Fri 09:00–12:00, 13:00–17:00');
  });

  it('say so when no day is open', () => {
    const hours = usualHours('Europe/Copenhagen');
    for (const day of ['mon', 'tue', 'wed', 'thu', 'fri'] as const) hours.week[day] = [];
    expect(hoursInWords(hours)).toBe('never open');
  });
});

describe('a line-up in words', () => {
  it.each([
    [[['Ann']], 'Ann'],
    [[['Ann', 'Ben', 'Cem']], 'Ann, Ben or Cem'],
    [[['Ann'], ['Ben']], 'Ann and Ben'],
    [[['Ann'], ['Ben'], ['Cem', 'Dag']], 'Ann, Ben, and Cem or Dag'],
  ])('%j is read as %s', (seats, words) => {
    expect(lineUpInWords(seats)).toBe(words);
  });
});
