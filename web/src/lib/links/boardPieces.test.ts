import { describe, expect, it } from 'vitest';
import { piecesOfLink, paintedOn, placeOf, readKey, startAt, startsWithin, worthShowing } from './boardPieces';
import type { Offer } from './form';

const zone = 'Europe/Copenhagen';
const offer: Offer = {
  by: 'picked',
  picked: ['2026-12-08T08:15:00Z', '2026-12-09T10:00:00Z'],
  painted: [],
  days: [],
  fromMinute: 480,
  toMinute: 1080,
  until: '2026-12-18',
  mostShown: null,
  from: null,
};
const board = {
  offer,
  minutes: 45,
  zone,
  hostIds: ['sunniva', 'keziah'],
  dates: ['2026-12-08', '2026-12-09'],
  openings: [],
  missed: new Map<string, unknown>(),
  servedBy: new Map<string, readonly string[]>(),
  held: new Map<string, readonly string[]>(),
  wishes: [],
};

describe('where a time stands on the board', () => {
  it('is the wall clock of the zone, also in one with a half hour', () => {
    expect(placeOf('2026-12-08T08:15:00Z', 45, zone)).toEqual({ date: '2026-12-08', from: 555, to: 600 });
    expect(placeOf('2026-12-08T20:00:00Z', 45, 'Asia/Kolkata')).toEqual({ date: '2026-12-09', from: 90, to: 135 });
  });

  it('ends with the day', () => {
    expect(placeOf('2026-12-08T22:30:00Z', 60, zone)).toEqual({ date: '2026-12-08', from: 1410, to: 1440 });
  });

  it('leads back to the same instant', () => {
    for (const start of ['2026-12-08T08:15:00Z', '2027-03-28T00:30:00Z', '2027-06-01T06:00:00Z']) {
      const place = placeOf(start, 30, zone);
      expect(startAt(place.date, place.from, zone)).toBe(start);
    }
  });

  it('takes a time that a clock skips as the one after it', () => {
    expect(startAt('2027-03-28', 150, zone)).toBe('2027-03-28T01:30:00Z');
  });
});

describe('pieces of the board', () => {
  it('stand in the lane of each host, with the time once', () => {
    const pieces = piecesOfLink(board);
    expect(pieces.map((piece) => [piece.hostId, piece.date, piece.from, piece.text])).toEqual([
      ['sunniva', '2026-12-08', 555, '9:15'],
      ['keziah', '2026-12-08', 555, undefined],
      ['sunniva', '2026-12-09', 660, '11:00'],
      ['keziah', '2026-12-09', 660, undefined],
    ]);
  });

  it('say which are not open and which are held, by whoever holds them', () => {
    const pieces = piecesOfLink({
      ...board,
      missed: new Map([['2026-12-08T08:15:00Z', undefined]]),
      held: new Map([['2026-12-09T10:00:00Z', ['keziah']]]),
    });
    expect(pieces.map((piece) => [piece.tone, piece.hostId])).toEqual([
      ['missed', 'sunniva'],
      ['missed', 'keziah'],
      ['kept', 'keziah'],
    ]);
  });

  it('are frames over what is open where time is painted', () => {
    const painted = {
      ...offer,
      by: 'painted' as const,
      painted: [{ start: '2026-12-01T09:00:00', minutes: 120, isWeekly: true }],
    };
    const pieces = piecesOfLink({
      ...board,
      offer: painted,
      openings: [{ start: '2026-12-08T08:00:00Z', end: '2026-12-08T08:45:00Z', placesLeft: 1 }],
    });
    expect(
      pieces.filter((piece) => piece.hostId === 'sunniva').map((piece) => [piece.tone, piece.from, piece.to]),
    ).toEqual([
      ['frame', 540, 660],
      ['open', 540, 585],
    ]);
  });

  it('bear what they stand for in their key', () => {
    expect(readKey('pick:2026-12-08T08:15:00Z|sunniva')).toEqual({ kind: 'pick', rest: '2026-12-08T08:15:00Z' });
    expect(readKey('paint:3:2026-12-08|x')).toEqual({ kind: 'paint', rest: '3:2026-12-08' });
  });
});

describe('painted time', () => {
  it('comes again each week from its first date on, and once only else', () => {
    const weekly = [{ start: '2026-12-08T09:00:00', minutes: 60, isWeekly: true }];
    expect(paintedOn(weekly, '2026-12-15')).toEqual([{ at: 0, from: 540, to: 600 }]);
    expect(paintedOn(weekly, '2026-12-01')).toEqual([]);
    expect(paintedOn(weekly, '2026-12-09')).toEqual([]);
    expect(paintedOn([{ ...weekly[0]!, isWeekly: false }], '2026-12-15')).toEqual([]);
  });
});

it('a date is worth a row where somebody is open or something is offered', () => {
  const bar = (kind: 'hours' | 'busy') => ({
    kind,
    fromMinute: 0,
    toMinute: 60,
    start: '',
    end: '',
    title: '',
    source: '',
    wholeDay: false,
    tentative: false,
    mark: '',
    block: null,
    outside: null,
  });
  const day = (date: string, bars: ReturnType<typeof bar>[]) => ({
    date,
    lanes: [{ hostId: 'a', bars }],
    allFree: [],
    anyFree: [],
  });
  const days = [day('2026-12-11', [bar('hours')]), day('2026-12-12', [bar('busy')]), day('2026-12-13', [])];
  expect(worthShowing({ now: '', zone, hosts: [], days }, new Set(['2026-12-13']))).toEqual([
    '2026-12-11',
    '2026-12-13',
  ]);
});

describe('what a lane shows', () => {
  it('is an opening only where its host can serve it', () => {
    const start = '2026-12-08T08:00:00Z';
    const openings = [{ start, end: '2026-12-08T08:45:00Z', placesLeft: 1 }];
    const servedBy = new Map([[start, ['keziah']]]);
    const shown = piecesOfLink({ ...board, offer: { ...offer, by: 'free' }, openings, servedBy });
    expect(shown.map(({ hostId }) => hostId)).toEqual(['keziah']);
  });

  it('fills a stretch with starts one after the other', () => {
    expect(startsWithin({ from: 540, to: 660 }, 45)).toEqual([540, 585]);
    expect(startsWithin({ from: 540, to: 560 }, 45)).toEqual([540]);
  });
});
