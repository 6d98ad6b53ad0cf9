import { expect, it } from 'vitest';
import { blankLink, forGuestOf, fromEvent, fromLink, type Setting } from './form';
import { takenByLink } from './relaxing';
import { ago, paintedWords, waiting } from './words';

const setting: Setting = {
  today: '2026-12-07',
  zone: 'Europe/Copenhagen',
  deskId: 'desk',
  usual: {
    duration: 45,
    bufferBefore: null,
    bufferAfter: 10,
    notice: null,
    placeKind: null,
    place: null,
    reminders: null,
    language: 'de',
    clock: null,
  },
};
const blank = blankLink(setting, ['sunniva', 'keziah']);
const none = { from: null, to: null, hostId: null, host: null, seat: null, gained: 1, lost: 0, change: null };

it('a new link starts from what is usual, with a seat for each host', () => {
  expect(blank.times.durations).toEqual([45]);
  expect([blank.times.bufferBefore, blank.times.bufferAfter, blank.guestLanguage]).toEqual([0, 10, 'de']);
  expect(blank.times.lineUp.map((seat) => seat.hostIds)).toEqual([['sunniva'], ['keziah']]);
  expect([blank.times.offer.until, blank.details.endsOn]).toEqual(['2026-12-18', '2026-12-18']);
});

it('one like an earlier link has its guests and rules, and none of its dates', () => {
  const earlier = structuredClone(blank);
  earlier.guests = [{ name: 'Ottilie Wren', email: '' }];
  earlier.times.offer = {
    ...earlier.times.offer,
    picked: ['2026-11-03T08:00:00Z'],
    until: '2026-11-10',
    painted: [
      { start: '2026-11-03T09:00:00', minutes: 60, isWeekly: true },
      { start: '2026-11-04T09:00:00', minutes: 60, isWeekly: false },
    ],
  };
  earlier.details.endsOn = '2026-11-10';
  const next = fromLink(setting, earlier, '“Hull survey” of 3 Nov');
  expect(next.guests).toEqual(earlier.guests);
  expect(next.times.offer.picked).toEqual([]);
  expect(next.times.offer.painted.length).toBe(1);
  expect([next.times.offer.until, next.details.endsOn, next.details.startedFrom]).toEqual([
    '2026-12-18',
    '2026-12-18',
    '“Hull survey” of 3 Nov',
  ]);
});

it('one from an event has its title, length and people', () => {
  const event = { entry: 7, title: 'Keel meeting', start: '2026-12-01T08:00:00Z', minutes: 52, hostIds: ['piet'] };
  const next = fromEvent(setting, event, {
    guests: [{ name: 'Ottilie Wren', email: 'ottilie@wren-charters.example' }],
    hostIds: ['piet', 'keziah'],
  });
  expect([
    next.title,
    next.times.durations[0],
    next.times.lineUp.map((seat) => seat.hostIds),
    next.guests[0]?.name,
  ]).toEqual(['Keel meeting', 50, [['piet'], ['keziah']], 'Ottilie Wren']);
});

it('a relaxation is taken over, and the form it came from stays', () => {
  const before = JSON.stringify(blank);
  expect(takenByLink(blank, { ...none, rule: 'noticeDropped', change: { notice: 0 } }).times.notice).toBe(0);
  const longer = takenByLink(blank, { ...none, rule: 'longerWindow', change: { offer: { until: '2026-12-25' } } });
  expect(longer.times.offer).toEqual({ ...blank.times.offer, until: '2026-12-25' });
  expect([longer.times.offer.until, longer.details.endsOn]).toEqual(['2026-12-25', '2026-12-25']);
  const led = { ...blank, details: { ...blank.details, lead: 1 } };
  const without = takenByLink(led, { ...none, rule: 'hostOptional', seat: 0, change: { lineUp: [] } });
  expect([without.details.lead, without.times.lineUp]).toEqual([0, []]);
  expect(JSON.stringify(blank)).toBe(before);
});

it('says how long ago something was', () => {
  const now = '2026-12-07T12:00:00Z';
  expect([
    ago('2026-12-07T11:59:30Z', now),
    ago('2026-12-07T11:15:00Z', now),
    ago('2026-12-06T12:00:00Z', now),
    ago('2026-12-03T12:00:00Z', now),
  ]).toEqual(['just now', '45 min', '24 h', '4 days']);
});

it('writes a painted stretch by the clock on the wall, over midnight too', () => {
  expect(paintedWords({ start: '2026-12-08T09:30:00', minutes: 90, isWeekly: false })).toMatch(
    /9:30( AM)? – 11:00( AM)?$/,
  );
  expect(paintedWords({ start: '2026-12-08T23:00:00', minutes: 120, isWeekly: true })).toMatch(
    /(23|11):00( PM)? – 0?1:00( AM)?$/,
  );
});

it('says for how long a guest is waited for, and nothing where nobody is', () => {
  const now = '2026-12-07T12:00:00Z';
  const said = (waitsSince: string | null, askedAgain: number): string => waiting({ waitsSince, askedAgain }, now);
  expect([
    said(null, 0),
    said('2026-12-07T11:59:30Z', 0),
    said('2026-12-07T11:59:30Z', 1),
    said('2026-12-03T12:00:00Z', 0),
    said('2026-12-03T12:00:00Z', 2),
  ]).toEqual([
    '',
    'sent just now',
    'asked again just now',
    'waits for 4 days',
    'waits for 4 days, asked again 2 times',
  ]);
});

it('is for whom other programs lead here with, and for nobody of a zone that is none', () => {
  const asked = (query: string) => forGuestOf(blankLink(setting, []), new URLSearchParams(query));
  expect(asked('name=Ottilie+Wren&email=o@wren.example&zone=Europe/Dublin')).toMatchObject({
    guests: [{ name: 'Ottilie Wren', email: 'o@wren.example' }],
    guestZone: 'Europe/Dublin',
  });
  expect(asked('zone=Mars/Base')).toMatchObject({ guests: [], guestZone: '' });
});
