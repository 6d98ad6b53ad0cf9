import { beforeAll, describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { setClock } from '$lib/time/format';
import { darkSentences, emptyWords } from './reasons';

beforeAll(() => setClock('h24'));

const zone = 'Europe/Copenhagen';
const nothing = {
  from: null,
  to: null,
  calendar: null,
  title: null,
  page: null,
  isHold: false,
  period: null,
  cap: null,
};

function dark(parts: Partial<Schemas['DarkAnswer']>): Schemas['DarkAnswer'] {
  return {
    from: '2026-12-10T07:00:00Z',
    to: '2026-12-10T17:00:00Z',
    zone,
    ofPage: [],
    seats: [],
    shared: [],
    ...parts,
  };
}

function host(name: string, ...reasons: Partial<Schemas['ReasonView']>[]): Schemas['DarkHostView'] {
  return {
    id: name,
    name,
    isKeeper: false,
    reasons: reasons.map((reason) => ({ ...nothing, rule: 'calendars', ...reason })),
  };
}

describe('why a stretch is dark', () => {
  it('says that a seat waits for who keeps the guest', () => {
    const anselm = { ...host('Anselm Park', { rule: 'hostCaps', cap: 2, period: 'day' }), isKeeper: true };
    expect(darkSentences(dark({ seats: [{ seat: 0, hosts: [anselm] }] }))).toEqual([
      'Anselm Park has the 2 a day that they take, and seat 1 is for this guest’s keeper only.',
    ]);
  });

  it('says who is away all day and that nobody else can come', () => {
    const anselm = host(
      'Anselm Park',
      { from: '2026-12-09T23:00:00Z', to: '2026-12-10T23:00:00Z', title: 'Classic yacht fair', calendar: 'Own' },
      { rule: 'hours', from: '2026-12-10T07:00:00Z', to: '2026-12-10T08:00:00Z' },
    );
    expect(darkSentences(dark({ seats: [{ seat: 1, hosts: [anselm] }] }))).toEqual([
      'Anselm Park is away all day (“Classic yacht fair”), and seat 2 has nobody else.',
    ]);
  });

  it('knows a whole day by any clock', () => {
    setClock('h12');
    const away = host('Anselm Park', { from: '2026-12-09T23:00:00Z', to: '2026-12-10T23:00:00Z' });
    expect(darkSentences(dark({ seats: [{ seat: 0, hosts: [away] }] }))).toEqual([
      'Anselm Park is away all day, and seat 1 has nobody else.',
    ]);
    setClock('h24');
  });

  it('names the calendar where the title may not be read, and hours, bookings and caps of each', () => {
    const busy = host(
      'Sunniva',
      { from: '2026-12-10T08:00:00Z', to: '2026-12-10T09:30:00Z', calendar: 'Work' },
      { rule: 'hours', from: '2026-12-10T07:00:00Z', to: '2026-12-10T08:00:00Z' },
      { rule: 'hours', from: '2026-12-10T15:00:00Z', to: '2026-12-10T17:00:00Z' },
    );
    const booked = host(
      'Tomasz',
      { rule: 'commitments', from: '2026-12-10T07:00:00Z', to: '2026-12-10T08:00:00Z', page: 'Hull survey' },
      { rule: 'hostCaps', cap: 3, period: 'day' },
    );
    expect(darkSentences(dark({ seats: [{ seat: 0, hosts: [busy, booked] }] }))).toEqual([
      'Nobody is free for seat 1: Sunniva is closed 08:00 to 09:00 and 16:00 to 18:00 and is busy 09:00 to 10:30 (Work); Tomasz is booked 08:00 to 09:00 (Hull survey) and has the 3 a day that they take.',
    ]);
  });

  it('says what fails for the page itself', () => {
    const ofPage = [
      { ...nothing, rule: 'notice' as const, from: '2026-12-10T06:00:00Z', to: '2026-12-11T06:00:00Z' },
      { ...nothing, rule: 'pageCaps' as const, cap: 2, period: 'day' as const },
      { ...nothing, rule: 'window' as const, from: '2026-11-30T23:00:00Z', to: '2026-12-09T23:00:00Z' },
    ];
    expect(darkSentences(dark({ ofPage }))).toEqual([
      'Notice: nothing is offered before Fri 11 December, 07:00.',
      'The page takes at most 2 a day and has reached that.',
      'It lies outside the days that are offered, which end with Wed 9 December.',
    ]);
  });

  it('tells of the grid where nothing else is in the way', () => {
    expect(darkSentences(dark({}))).toEqual(['No start of this page’s grid falls in here.']);
  });
});

describe('why a page is empty by mistake', () => {
  it('tells when hours open next, and whether that is too late', () => {
    const later = { host: null, minutes: null, opens: '2026-12-16' };
    expect(emptyWords({ kind: 'windowClosed', ...later }, '1 h')).toContain('Offer more days.');
    expect(emptyWords({ kind: 'opensLater', ...later }, '1 h')).not.toContain('Offer');
  });

  it('says what to mend', () => {
    expect(emptyWords({ kind: 'hoursApart', host: 'Odile', minutes: null, opens: null }, '30 min')).toBe(
      'This page’s hours and those of Odile are never open at one time. Look at the time zones of both.',
    );
    expect(emptyWords({ kind: 'openTooShort', host: null, minutes: 45, opens: null }, '1 h')).toBe(
      'The longest run of open time is 45 min, but an opening takes 1 h. Open longer, or offer a shorter duration.',
    );
  });
});
