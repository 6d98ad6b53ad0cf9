import { describe, expect, it } from 'vitest';
import { moved, newQuestion, toggled } from './kinds';

describe('questions', () => {
  it('are named apart', () => {
    const first = newQuestion([]);
    const third = { ...first, key: 'q3' };
    expect(first.key).toBe('q1');
    expect(newQuestion([first, third]).key).toBe('q4');
  });

  it('move by a place and are none lost', () => {
    const [a, b, c] = ['a', 'b', 'c'].map((key) => ({ ...newQuestion([]), key }));
    if (!a || !b || !c) throw new Error('three');
    expect(moved([a, b, c], 2, -1).map((question) => question.key)).toEqual(['a', 'c', 'b']);
    expect(moved([a, b, c], 0, 1).map((question) => question.key)).toEqual(['b', 'a', 'c']);
  });
});

describe('some of several', () => {
  it('takes an option in and out', () => {
    expect(toggled('', 'oak')).toBe('oak');
    expect(toggled('oak', 'larch')).toBe('oak\nlarch');
    expect(toggled('oak\nlarch', 'oak')).toBe('larch');
  });
});
