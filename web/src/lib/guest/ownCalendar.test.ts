import { describe, expect, it } from 'vitest';
import { readCalendar } from './ownCalendar';
import { clashOf } from './taken';

const from = Date.parse('2026-12-07T00:00:00Z');
const to = Date.parse('2026-12-21T00:00:00Z');

function calendar(...events: string[][]): string {
  return [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//x//y//EN',
    ...events.flatMap((lines) => ['BEGIN:VEVENT', 'DTSTAMP:20261201T000000Z', ...lines, 'END:VEVENT']),
    'END:VCALENDAR',
    '',
  ].join('\r\n');
}

async function read(...events: string[][]): Promise<string[]> {
  return (await readCalendar(calendar(...events), from, to, 'Europe/Copenhagen')).map(
    (one) =>
      `${new Date(one.from).toISOString().slice(0, 16)} ${new Date(one.to).toISOString().slice(11, 16)} ${one.title}`,
  );
}

describe('a calendar of the guest’s own', () => {
  it('takes what its events last, in their own zones, the reader’s or UTC', async () => {
    expect(
      await read(
        [
          'UID:1',
          'SUMMARY:Dentist',
          'DTSTART;TZID=Europe/Dublin:20261208T090000',
          'DTEND;TZID=Europe/Dublin:20261208T100000',
        ],
        ['UID:2', 'SUMMARY:Call', 'DTSTART:20261208T120000Z', 'DURATION:PT30M'],
        ['UID:3', 'SUMMARY:Lunch', 'DTSTART:20261209T120000', 'DTEND:20261209T130000'],
      ),
    ).toEqual(['2026-12-08T09:00 10:00 Dentist', '2026-12-08T12:00 12:30 Call', '2026-12-09T11:00 12:00 Lunch']);
  });

  it('takes whole days of the reader’s', async () =>
    expect(await read(['UID:1', 'SUMMARY:Away', 'DTSTART;VALUE=DATE:20261210', 'DTEND;VALUE=DATE:20261211'])).toEqual([
      '2026-12-09T23:00 23:00 Away',
    ]));

  it('repeats, without what is left out, moved or cancelled', async () => {
    expect(
      await read(
        [
          'UID:1',
          'SUMMARY:Choir',
          'DTSTART;TZID=Europe/Copenhagen:20260106T190000',
          'DTEND;TZID=Europe/Copenhagen:20260106T210000',
          'RRULE:FREQ=WEEKLY;BYDAY=TU,TH',
          'EXDATE;TZID=Europe/Copenhagen:20261210T190000',
        ],
        [
          'UID:1',
          'SUMMARY:Choir',
          'RECURRENCE-ID;TZID=Europe/Copenhagen:20261215T190000',
          'DTSTART;TZID=Europe/Copenhagen:20261216T170000',
          'DTEND;TZID=Europe/Copenhagen:20261216T180000',
        ],
      ),
    ).toEqual(['2026-12-08T18:00 20:00 Choir', '2026-12-16T16:00 17:00 Choir', '2026-12-17T18:00 20:00 Choir']);
  });

  it('goes on after one that was moved beyond the end, and takes one of a series that is elsewhere', async () => {
    expect(
      await read(
        [
          'UID:1',
          'SUMMARY:Choir',
          'DTSTART;TZID=Europe/Copenhagen:20261208T190000',
          'DTEND;TZID=Europe/Copenhagen:20261208T210000',
          'RRULE:FREQ=WEEKLY',
        ],
        [
          'UID:1',
          'SUMMARY:Choir',
          'RECURRENCE-ID;TZID=Europe/Copenhagen:20261208T190000',
          'DTSTART;TZID=Europe/Copenhagen:20270108T190000',
          'DTEND;TZID=Europe/Copenhagen:20270108T210000',
        ],
        [
          'UID:2',
          'SUMMARY:Stand-in',
          'RECURRENCE-ID:20261209T100000Z',
          'DTSTART:20261210T100000Z',
          'DTEND:20261210T110000Z',
        ],
      ),
    ).toEqual(['2026-12-10T10:00 11:00 Stand-in', '2026-12-15T18:00 20:00 Choir']);
  });

  it('takes nothing where it is free, cancelled or elsewhere in time', async () => {
    expect(
      await read(
        ['UID:1', 'TRANSP:TRANSPARENT', 'DTSTART:20261208T120000Z', 'DTEND:20261208T130000Z'],
        ['UID:2', 'STATUS:CANCELLED', 'DTSTART:20261208T120000Z', 'DTEND:20261208T130000Z'],
        ['UID:3', 'DTSTART:20270208T120000Z', 'DTEND:20270208T130000Z'],
      ),
    ).toEqual([]);
  });

  it('ends also where a rule does not', async () =>
    expect((await read(['UID:1', 'DTSTART:20200101T000000Z', 'DURATION:PT1S', 'RRULE:FREQ=SECONDLY'])).length).toBe(0));

  it('is refused where it is no calendar', async () =>
    expect(readCalendar('hello', from, to, 'UTC')).rejects.toThrow());

  it('clashes with times that it meets, and not with those it only touches', () => {
    const taken = [
      { from: Date.parse('2026-12-08T09:00:00Z'), to: Date.parse('2026-12-08T10:00:00Z'), title: 'Dentist' },
    ];
    expect(clashOf(taken, '2026-12-08T09:30:00Z', '2026-12-08T10:30:00Z')?.title).toBe('Dentist');
    expect(clashOf(taken, '2026-12-08T10:00:00Z', '2026-12-08T10:30:00Z')).toBeUndefined();
  });
});
