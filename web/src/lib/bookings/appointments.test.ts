import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { appointmentsOf, fullness } from './appointments';

const row = (id: string, sessionId: string, more: Partial<Schemas['BookingRow']> = {}) =>
  ({ id, sessionId, places: 1, party: 1, cancelledAt: null, ...more }) as Schemas['BookingRow'];

describe('appointments', () => {
  it('has one for a session, with everybody in it', () => {
    const group = { places: 8 };
    const made = appointmentsOf([
      row('a', 's', group),
      row('b', 's', { ...group, party: 3 }),
      row('c', 't', group),
      row('d', 'u'),
    ]);
    expect(made.map(({ rows, isShared }) => [rows.map(({ id }) => id).join(), isShared])).toEqual([
      ['a,b', true],
      ['c', true],
      ['d', false],
    ]);
    expect(made.map(fullness)).toEqual(['4 of 8 places taken', '1 of 8 places taken', '1 people']);
  });

  it('has several who come together by a link as one, and who cancelled alone', () => {
    expect(appointmentsOf([row('a', 's'), row('b', 's')]).map(fullness)).toEqual(['2 people']);
    const gone = { cancelledAt: '2026-12-01T08:00:00Z', places: 8 };
    expect(appointmentsOf([row('a', 's', gone), row('b', 's', gone)]).map(({ isShared }) => isShared)).toEqual([
      false,
      false,
    ]);
  });
});
