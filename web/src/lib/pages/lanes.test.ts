import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { axisOf, barsOf, difference } from './lanes';

const at = (fromMinute: number, toMinute: number) => ({ start: `s${fromMinute}`, fromMinute, toMinute });
const day = (...openings: ReturnType<typeof at>[]) => ({ date: '2026-12-08', openings });

describe('lanes of a supply', () => {
  it('join openings that touch or overlap', () =>
    expect(barsOf(day(at(480, 525), at(510, 555), at(555, 600), at(700, 745)), undefined)).toEqual([
      { from: 480, to: 600, gained: false },
      { from: 700, to: 745, gained: false },
    ]));

  it('keep what a change adds apart', () =>
    expect(barsOf(day(at(480, 510), at(510, 540)), new Set(['s510']))).toEqual([
      { from: 480, to: 510, gained: true },
      { from: 510, to: 540, gained: false },
    ]));

  const supply = (...days: [string, ...string[]][]) =>
    ({
      days: days.map(([date, ...starts]) => ({
        date,
        openings: starts.map((start) => ({ start, fromMinute: 0, toMinute: 30 })),
      })),
    }) as unknown as Schemas['SupplyAnswer'];

  it('count what came and what went', () =>
    expect(difference(supply(['2026-12-07', 'a', 'b']), supply(['2026-12-07', 'b', 'c', 'd']))).toEqual({
      gained: 2,
      lost: 1,
    }));

  it('count no day as new because the others begin later', () =>
    expect(
      difference(
        supply(['2026-12-07', 'a'], ['2026-12-08', 'b']),
        supply(['2026-12-08', 'b', 'c'], ['2026-12-09', 'd']),
      ),
    ).toEqual({ gained: 1, lost: 1 }));

  it('show whole hours, the working day at the least', () => {
    expect(axisOf([day()])).toEqual({ from: 480, to: 1080 });
    expect(axisOf([day(at(430, 470), at(1100, 1145))])).toEqual({ from: 420, to: 1200 });
    expect(axisOf([day(at(1400, 1440))]).to).toBe(1440);
  });
});
