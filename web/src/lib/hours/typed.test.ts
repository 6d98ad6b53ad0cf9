import { describe, expect, it } from 'vitest';
import { readDay, readWeek, timeOfDay } from './typed';

describe('a typed time of day', () => {
  it.each([
    ['9', '09:00'],
    ['0930', '09:30'],
    ['9.30', '09:30'],
    ['17:05', '17:05'],
    ['24', '24:00'],
    ['5 pm', '17:00'],
    ['9:00 a.m.', '09:00'],
    ['5 p. m.', '17:00'],
    ['12am', '00:00'],
    ['12:30pm', '12:30'],
    ['13 pm', '13 pm'],
    ['25', '25'],
    ['9:75', '9:75'],
    ['noon', 'noon'],
  ])('%s is read as %s', (typed, time) => expect(timeOfDay(typed)).toBe(time));
});

describe('a typed day', () => {
  it.each([
    ['9-12, 13:30–17', ['09:00-12:00', '13:30-17:00']],
    ['9:00 a.m. to 12:30 p.m.', ['09:00-12:30']],
    ['9 to 5 pm', ['09:00-17:00']],
    ['8–12 and 13–16', ['08:00-12:00', '13:00-16:00']],
    ['22-24', ['22:00-24:00']],
    ['closed', []],
    ['', []],
  ])('%s', (typed, open) => {
    const read = readDay(typed);
    expect(read.mend).toBeUndefined();
    expect(read.open.map((time) => `${time.from}-${time.to}`)).toEqual(open);
  });

  it.each([
    ['9-12, lunch', '“lunch” is no run of time'],
    ['9-12-15', '“9-12-15” is no run of time'],
    ['12-9', '“12-9” ends before it starts'],
    ['9-12, 11-13', '“11-13” starts before the one in front of it ends'],
  ])('%s is refused with what and why', (typed, mend) => {
    expect(readDay(typed).mend).toContain(mend);
    expect(readDay(typed).open).toEqual([]);
  });
});

describe('a pasted week', () => {
  it('takes runs of days, lists of days and tabs', () => {
    const { week, faults } = readWeek('Mon–Wed 8-12, 13-17\nThursday:\t9:00 – 15:00\nFri, Sat 8-11; Sun closed');
    expect(faults).toEqual([]);
    expect(
      Object.fromEntries(
        Object.entries(week).map(([day, open]) => [day, open.map((time) => `${time.from}-${time.to}`).join(' ')]),
      ),
    ).toEqual({
      mon: '08:00-12:00 13:00-17:00',
      tue: '08:00-12:00 13:00-17:00',
      wed: '08:00-12:00 13:00-17:00',
      thu: '09:00-15:00',
      fri: '08:00-11:00',
      sat: '08:00-11:00',
      sun: '',
    });
  });

  it('goes round the end of the week, and knows all days by one word', () => {
    expect(Object.keys(readWeek('Sat-Mon 9-10').week).sort()).toEqual(['mon', 'sat', 'sun']);
    expect(Object.keys(readWeek('weekdays 9-10').week)).toHaveLength(5);
    expect(Object.keys(readWeek('daily 9-10').week)).toHaveLength(7);
    expect(Object.keys(readWeek('Mondays and thurs. 9-10').week).sort()).toEqual(['mon', 'thu']);
  });

  it('names each part that can’t be read, and reads the rest', () => {
    const { week, faults } = readWeek('Mon 9-12\nTue nine to five\nhours vary\nWed 14-13\nThu nonsense\nFri');
    expect(Object.keys(week)).toEqual(['mon']);
    expect(faults.map((fault) => fault.text)).toEqual([
      'Tue nine to five',
      'hours vary',
      'Wed 14-13',
      'Thu nonsense',
      'Fri',
    ]);
  });
});
