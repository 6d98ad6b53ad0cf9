import { describe, expect, it } from 'vitest';
import { fieldOf, rowsOf, rulesOf, whatGoes } from './erasing';

describe('what erasing a guest does', () => {
  const nothing = {
    name: 'Q',
    version: 1,
    bookings: 0,
    toCome: [],
    links: 0,
    usable: [],
    mails: 0,
    waiting: 0,
    notes: 0,
  };

  it('names only what there is', () => {
    expect(whatGoes(nothing)).toEqual(['Everything known about this guest is deleted.']);
    expect(whatGoes({ ...nothing, bookings: 2, mails: 3, waiting: 1 }).slice(1)).toEqual([
      '2 bookings stay, without name, email, answers or people brought along; also in your hosts’ calendars.',
      '3 emails are deleted.',
      'One of them has not been sent yet, and won’t be.',
    ]);
  });
});

describe('how long guests are kept', () => {
  const rules = {
    kinds: [
      { kind: 'School', months: 6 },
      { kind: '', months: 24 },
    ],
    withoutBooking: null,
  };
  const rows = rowsOf(rules, ['', 'Surveys', 'School']);

  it('has a row for each kind, for pages of none, and for who never booked', () => {
    expect(rows).toEqual([
      { kind: 'Surveys', months: '' },
      { kind: 'School', months: '6' },
      { kind: '', months: '24' },
      { kind: null, months: '' },
    ]);
    expect(rulesOf(rows)).toEqual(rules);
  });

  it('sends what is no number so that the server names its field', () => {
    const typed = rows.map((row) => (row.kind === '' ? { ...row, months: 'two' } : row));
    expect(rulesOf(typed).kinds[1]).toEqual({ kind: '', months: 0 });
    expect(typed.map((row) => fieldOf(typed, row)).slice(1)).toEqual([
      'kinds[0].months',
      'kinds[1].months',
      'withoutBooking',
    ]);
  });
});
