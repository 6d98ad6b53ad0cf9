import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { hoursOf } from './axis';

function board(
  ...bars: { host: string; kind: Schemas['BarKind']; from: number; to: number }[]
): Schemas['BoardAnswer'] {
  const lanes = bars.map((bar) => ({
    hostId: bar.host,
    bars: [
      {
        kind: bar.kind,
        fromMinute: bar.from,
        toMinute: bar.to,
        start: '2026-12-08T00:00:00Z',
        end: '2026-12-08T00:00:00Z',
        title: '',
        source: '',
        wholeDay: false,
        tentative: false,
        mark: '',
        block: null,
        outside: null,
        linkId: null,
      },
    ],
  }));
  return {
    now: '2026-12-08T00:00:00Z',
    zone: 'Europe/Copenhagen',
    hosts: [],
    days: [{ date: '2026-12-08', lanes, allFree: [], anyFree: [] }],
  };
}

describe('a board’s axis', () => {
  it('is widened to whole hours by hours and bookings of those who are shown', () => {
    const shown = board(
      { host: 'a', kind: 'hours', from: 430, to: 600 },
      { host: 'a', kind: 'booked', from: 1090, to: 1130 },
      { host: 'b', kind: 'hours', from: 0, to: 1440 },
    );
    expect(hoursOf(shown, new Set(['a']))).toEqual({ from: 420, to: 1140 });
  });

  it('shows no night for a room that is always open', () =>
    expect(hoursOf(board({ host: 'a', kind: 'hours', from: 0, to: 1440 }), new Set(['a']))).toEqual({
      from: 480,
      to: 1080,
    }));

  it('is not widened by what lies in a calendar at night', () =>
    expect(hoursOf(board({ host: 'a', kind: 'busy', from: 0, to: 1440 }), new Set(['a']))).toEqual({
      from: 480,
      to: 1080,
    }));
});
