import { describe, expect, it } from 'vitest';
import { everybody, filterIn, isEverybody, isSameFilter, putFilter, testInWords } from './filter';

function roundTrip(filter: typeof everybody): typeof everybody {
  const query = new URLSearchParams();
  putFilter(query, filter);
  return filterIn(new URLSearchParams(query.toString()));
}

describe('a choice of guests in the address', () => {
  it('is nothing for everybody', () => {
    const query = new URLSearchParams();
    putFilter(query, everybody);
    expect(query.toString()).toBe('');
    expect(filterIn(query)).toEqual(everybody);
  });

  it('comes back as it was', () => {
    const filter = {
      ...everybody,
      search: 'wren & co',
      keeper: '00000000-0000-0000-0000-000000000001',
      appointments: 'past' as const,
      notSince: '2026-06-01',
      fields: [{ field: '00000000-0000-0000-0000-000000000002', test: 'from' as const, value: '10' }],
      order: 'newest' as const,
    };
    expect(roundTrip(filter)).toEqual(filter);
  });

  it('shows everybody where it can’t be read', () => {
    expect(filterIn(new URLSearchParams('filter={oops&search=wren'))).toEqual({ ...everybody, search: 'wren' });
  });

  it('is told from another, whatever the order of its parts', () => {
    expect(isSameFilter({ ...everybody, flagged: true }, { flagged: true } as typeof everybody)).toBe(true);
    expect(isSameFilter(everybody, { ...everybody, doubles: true })).toBe(false);
    expect(isEverybody({ ...everybody, order: 'newest' })).toBe(true);
    expect(isEverybody({ ...everybody, withoutEmail: true })).toBe(false);
  });

  it('says what is asked of a field by its kind', () => {
    expect(testInWords('text', 'is')).toBe('contains');
    expect(testInWords('date', 'to')).toBe('is on or before');
    expect(testInWords('number', 'from')).toBe('is at least');
  });
});
