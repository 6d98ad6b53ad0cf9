import { describe, expect, it } from 'vitest';
import { newQuestion, toggled } from './kinds';

describe('questions', () => {
  it('are named apart', () => {
    const first = newQuestion([]);
    const third = { ...first, key: 'q3' };
    expect(first.key).toBe('q1');
    expect(newQuestion([first, third]).key).toBe('q4');
  });
});

describe('some of several', () => {
  it('takes an option in and out', () => {
    expect(toggled('', 'oak')).toBe('oak');
    expect(toggled('oak', 'larch')).toBe('oak\nlarch');
    expect(toggled('oak\nlarch', 'oak')).toBe('larch');
  });
});
