import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { brings, compare } from './merging';

const guest = (change: Partial<Schemas['GuestDetail']>): Schemas['GuestDetail'] => ({
  id: '1',
  version: 1,
  name: 'Ottilie Wren',
  emails: [],
  organisation: '',
  phone: '',
  zone: null,
  language: null,
  clock: null,
  keeperId: null,
  keeperName: '',
  fields: {},
  source: 'booking',
  madeAt: '2026-12-07T07:00:00Z',
  bookerEmail: '',
  bookings: 0,
  offers: 0,
  notes: 0,
  said: [],
  doubles: [],
  merges: [],
  flags: [],
  erasedFrom: null,
  ...change,
});

describe('two guests who may be one', () => {
  it('are compared in what they differ in', () => {
    const rig: Schemas['GuestFieldView'] = { id: 'f', name: 'Member', kind: 'yesNo', options: [], filled: 1 };
    expect(compare(guest({ zone: 'Europe/Dublin' }), guest({ name: 'O. Wren', fields: { f: 'yes' } }), [rig])).toEqual([
      { name: 'name', words: 'Name', kept: 'Ottilie Wren', other: 'O. Wren' },
      { name: 'zone', words: 'Time zone', kept: 'Dublin', other: '' },
      { name: 'f', words: 'Member', kept: '', other: 'Yes' },
    ]);
  });

  it('says what comes over', () => {
    expect(brings(guest({ emails: ['o@wren.example'], bookings: 2 }))).toBe('1 email, 2 bookings');
    expect(brings(guest({}))).toBe('nothing else');
  });
});
