import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { byDays, inOrder } from './days';

const zone = 'Europe/Copenhagen';
const row = (id: string, start: string, waits = false): Schemas['BookingRow'] =>
  ({
    id,
    sessionId: id,
    start,
    places: 1,
    party: 1,
    cancelledAt: null,
    waitsUntil: waits ? start : null,
    wishStart: null,
    reply: 'none',
    outside: [],
  }) as unknown as Schemas['BookingRow'];
const mixed = [
  row('a', '2026-12-08T08:00:00Z'),
  row('b', '2026-12-08T09:00:00Z', true),
  row('c', '2026-12-08T10:00:00Z'),
  row('d', '2026-12-09T08:00:00Z'),
];

describe('the days of a list', () => {
  it('stand once each where what waits has no place of its own', () => {
    expect(byDays(mixed, zone, false).map((day) => [day.key, day.appointments.length])).toEqual([
      ['2026-12-08', 3],
      ['2026-12-09', 1],
    ]);
  });

  it('are told apart where what waits stands first, and have keys of their own in any order', () => {
    const days = byDays(mixed, zone, true);
    expect(days.map((day) => day.waits)).toEqual([false, true, false, false]);
    expect(new Set(days.map((day) => day.key)).size).toBe(4);
  });

  it('are not told of in another order', () => {
    const rows = Array.from({ length: 31 }, (_, at) => row(String(at), '2026-12-08T08:00:00Z'));
    expect(inOrder(rows).map((group) => [group.date, group.appointments.length])).toEqual([
      ['', 30],
      ['', 1],
    ]);
  });
});
