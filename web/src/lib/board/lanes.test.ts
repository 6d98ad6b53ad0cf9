import { describe, expect, it } from 'vitest';
import { lanesIn, MOST_LANES, putLanes } from './lanes';

const hosts = (count: number): { id: string }[] => Array.from({ length: count }, (_, n) => ({ id: `h${String(n)}` }));
const few = hosts(3);
const many = hosts(MOST_LANES + 1);

const through = (of: { id: string }[], shown: string[]): string[] => {
  const query = new URLSearchParams();
  putLanes(query, of, shown);
  return lanesIn(new URLSearchParams(query.toString()), of, null).shown;
};

describe('whose lanes are shown', () => {
  it('is everybody where they are few, but for those who are hidden', () => {
    expect(lanesIn(new URLSearchParams(), few, null)).toEqual({ shown: ['h0', 'h1', 'h2'], isMany: false });
    expect(lanesIn(new URLSearchParams('hide=h1'), few, null).shown).toEqual(['h0', 'h2']);
  });

  it('is, where they are many, the reader and the first of the others', () => {
    const { shown, isMany } = lanesIn(new URLSearchParams(), many, 'h12');
    expect(isMany).toBe(true);
    expect(shown).toEqual(['h0', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'h12']);
    expect(lanesIn(new URLSearchParams(), many, 'h2').shown).toEqual(many.slice(0, 8).map((host) => host.id));
  });

  it('is as the address has it, nobody too', () => {
    for (const shown of [[], ['h2'], ['h0', 'h1', 'h2']]) {
      expect(through(few, shown)).toEqual(shown);
      expect(through(many, shown)).toEqual(shown);
    }
    expect(lanesIn(new URLSearchParams('show=gone&show=h3'), many, null).shown).toEqual(['h3']);
  });
});
