import { describe, expect, it } from 'vitest';
import { axisOfWeek, dayInWords, openTimesOf, spansOf, usualHours, weekInWords } from './week';

describe('hours in words', () => {
  it('join days that are alike and leave out closed ones', () => {
    const { week } = usualHours('Europe/Copenhagen');
    week.wed = [{ from: '10:00', to: '11:00' }];
    expect(weekInWords(week)).toBe(
      'Mon–Tue 09:00–12:00, 13:00–17:00; Wed 10:00–11:00; Thu–Fri 09:00–12:00, 13:00–17:00',
    );
  });

  it('say so when no day is open', () => {
    const { week } = usualHours('Europe/Copenhagen');
    for (const day of ['mon', 'tue', 'wed', 'thu', 'fri'] as const) week[day] = [];
    expect(weekInWords(week)).toBe('never open');
    expect(dayInWords([])).toBe('closed');
  });
});

describe('open times and spans', () => {
  it('are two ways of writing the same, joined where they meet', () => {
    expect(
      openTimesOf([
        { from: 720, to: 780 },
        { from: 540, to: 720 },
        { from: 1380, to: 1440 },
      ]),
    ).toEqual([
      { from: '09:00', to: '13:00' },
      { from: '23:00', to: '24:00' },
    ]);
    expect(
      spansOf([
        { from: '09:00', to: '13:00' },
        { from: '9', to: '10' },
      ]),
    ).toEqual([{ from: 540, to: 780 }]);
  });

  it('widen the week’s axis to whole hours', () => {
    const { week } = usualHours('Europe/Copenhagen');
    expect(axisOfWeek(week)).toEqual({ from: 360, to: 1200 });
    week.sat = [{ from: '04:30', to: '22:10' }];
    expect(axisOfWeek(week)).toEqual({ from: 240, to: 1380 });
  });
});
