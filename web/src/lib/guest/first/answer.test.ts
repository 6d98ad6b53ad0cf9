import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { asOf, lastOf, openingsOf, type FirstOpenings } from './answer';

const minute = (at: string): number => Date.parse(at) / 60_000;
const written: FirstOpenings = {
  zone: 'Europe/Copenhagen',
  offsets: [],
  runs: [
    [minute('2026-12-07T08:00:00Z'), 30, 3, 45, 1],
    [minute('2026-12-09T23:30:00Z'), 0, 1, 60, 2],
  ],
};

describe('openings that were written small', () => {
  it('are those that were meant', () => {
    expect(openingsOf(written).openings).toEqual([
      { start: '2026-12-07T08:00:00Z', end: '2026-12-07T08:45:00Z', placesLeft: 1 },
      { start: '2026-12-07T08:30:00Z', end: '2026-12-07T09:15:00Z', placesLeft: 1 },
      { start: '2026-12-07T09:00:00Z', end: '2026-12-07T09:45:00Z', placesLeft: 1 },
      { start: '2026-12-09T23:30:00Z', end: '2026-12-10T00:30:00Z', placesLeft: 2 },
    ]);
    expect(lastOf(written)).toBe('2026-12-09T23:30:00Z');
    expect(lastOf({ ...written, runs: [] })).toBeUndefined();
  });

  it('are left out from a day on, but not those of the weeks in which a page opens', () => {
    const late: FirstOpenings = { ...written, runs: [...written.runs, [minute('2027-02-01T08:00:00Z'), 0, 1, 45, 1]] };
    const until = (at: string): number => openingsOf(late, minute(at)).openings.length;
    expect(until('2026-11-01T00:00:00Z')).toBe(4);
    expect(until('2027-02-01T00:00:00Z')).toBe(4);
    expect(until('2027-02-02T00:00:00Z')).toBe(5);
  });

  it('are told with the hour of now, however long the app was in coming', () => {
    const page = { now: '2026-12-07T08:00:00Z' } as Schemas['GuestPage'];
    const first = { path: '/a/b', language: 'en', screens: null };
    expect(asOf({ ...first, page }, 90_000).page?.now).toBe('2026-12-07T08:01:30.000Z');
    const link = { page, state: 'out' } as Schemas['GuestLink'];
    expect(asOf({ ...first, link }, 90_000).link).toMatchObject({
      state: 'out',
      page: { now: '2026-12-07T08:01:30.000Z' },
    });
  });
});
