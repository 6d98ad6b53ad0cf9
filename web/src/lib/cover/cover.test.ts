import { beforeEach, describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { asPlanned, decide, formOf, isChanged, seatsToFill } from './plan';
import { doneInWords, pressOf, sumOf, whyAll } from './words';
import { setClock } from '$lib/time/format';

type Line = Schemas['CoverLineView'];

const seat = (place: number, host: string, isAway = false): Schemas['CoverSeatView'] => ({
  seat: place,
  host,
  name: host,
  isAway,
});

function line(session: string, change: Partial<Line> = {}): Line {
  return {
    session,
    booking: `b-${session}`,
    page: 'Hull survey',
    start: '2026-12-08T08:00:00Z',
    end: '2026-12-08T08:30:00Z',
    guests: [`guest of ${session}`],
    before: [seat(0, 'ill', true)],
    after: [seat(0, 'noor')],
    byHand: false,
    why: [],
    waits: false,
    unreachable: [],
    ...change,
  };
}

const plan = (lines: Line[], isBest = true): Schemas['CoverView'] => ({ isBest, lines, loads: [] });

describe('a plan', () => {
  beforeEach(() => setClock('h24'));

  it('is carried out as it is shown', () => {
    const form = formOf(plan([line('1'), line('2', { after: null })]), ['ill'], 'Sorry.', true);
    expect(form.lines).toEqual([
      { session: '1', before: [{ seat: 0, host: 'ill' }], after: [{ seat: 0, host: 'noor' }] },
      { session: '2', before: [{ seat: 0, host: 'ill' }], after: null },
    ]);
  });

  it('keeps the other seats of a line where one is chosen by hand', () => {
    const panel = line('1', { before: [seat(0, 'ill', true), seat(1, 'bo')], after: [seat(0, 'bo'), seat(1, 'cai')] });
    expect(seatsToFill(panel).map((one) => one.seat)).toEqual([0, 1]);
    expect(decide(panel, 0, 'dag')?.seats).toEqual([
      { seat: 1, host: 'cai' },
      { seat: 0, host: 'dag' },
    ]);
    // Of one that is left all that lost somebody are needed.
    const left = line('2', { before: [seat(0, 'ill', true), seat(1, 'away', true)], after: null });
    expect(decide(left, 0, 'dag')).toBeUndefined();
    expect(decide(line('3', { after: null }), 0, 'dag')?.seats).toEqual([{ seat: 0, host: 'dag' }]);
  });

  it('says what it comes to, and what its press does', () => {
    const three = plan([line('1'), line('2'), line('3', { after: null })]);
    expect(sumOf(three)).toBe('3 bookings: 2 stay at their time, 1 is offered new times.');
    expect(sumOf(plan([line('1')], false))).toBe(
      '1 booking: 1 stays at its time. There may be a better plan; this is the best that was found.',
    );
    expect(pressOf(three)).toBe('Give 2 to others, offer 1 anew');
    expect(pressOf(plan([line('1')]))).toBe('Give 1 to others');
    expect(pressOf(plan([line('1', { after: null })]))).toBe('Offer 1 anew');
  });

  it('says what was done, and no more than that', () => {
    expect(doneInWords({ kept: 6, left: 1, letters: 7 }, true)).toBe(
      'Done: 6 bookings went to others, 1 is offered new times. 7 letters wait until it can’t be taken back any more.',
    );
    expect(doneInWords({ kept: 0, left: 2, letters: 1 }, false)).toBe(
      'Done: 2 are offered new times. 1 letter goes out now.',
    );
    expect(sumOf(plan([]))).toBe('None of them is chosen.');
  });

  it('says of what is left why nobody can', () => {
    const left = line('2', {
      after: null,
      why: [
        { kind: 'busy', name: 'Bo', session: null },
        { kind: 'needed', name: 'Cai', session: '1' },
        { kind: 'hours', name: 'Dag', session: null },
      ],
    });
    expect(whyAll(left, [line('1'), left], 'Europe/Copenhagen')).toBe(
      'Bo’s calendar is busy, Cai is needed for guest of 1 at 09:00, it is outside Dag’s hours.',
    );
    expect(isChanged(left)).toBe(true);
    expect(isChanged(line('1', { before: [seat(0, 'noor')] }))).toBe(false);
  });

  it('lies on the board in the lanes of those who take it', () => {
    const bar = (path: string): Schemas['BoardBar'] => ({
      kind: 'booked',
      fromMinute: 540,
      toMinute: 570,
      start: '2026-12-08T08:00:00Z',
      end: '2026-12-08T08:30:00Z',
      title: 'Hull survey',
      source: '',
      wholeDay: false,
      tentative: false,
      mark: 'Hu',
      block: null,
      outside: null,
      path,
    });
    const board: Schemas['BoardAnswer'] = {
      now: '2026-12-07T07:00:00Z',
      zone: 'Europe/Copenhagen',
      hosts: [],
      days: [
        {
          date: '2026-12-08',
          lanes: [
            {
              hostId: 'ill',
              bars: [bar('/work/bookings/b-1'), bar('/work/bookings/session/2'), bar('/work/bookings/x')],
            },
            { hostId: 'noor', bars: [bar('/work/bookings/y')] },
          ],
          allFree: [],
          anyFree: [],
        },
      ],
    };
    const lanes = asPlanned(board, [line('1'), line('2', { after: null })]).days[0]?.lanes ?? [];
    expect(lanes.map((lane) => lane.bars.map((one) => one.path))).toEqual([
      ['/work/bookings/x'],
      ['/work/bookings/y', '/work/bookings/b-1'],
    ]);
  });
});
