import { describe, expect, it } from 'vitest';
import { ourKey } from './keys';

const quiet = {
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  repeat: false,
  isComposing: false,
  defaultPrevented: false,
  target: null as unknown,
};
const pressed = (key: string, more: Partial<typeof quiet> = {}): string | undefined =>
  ourKey({ ...quiet, ...more, key });

describe('keys of ours', () => {
  it('are few', () => {
    const keys = ['/', '.', '?', 'a', 'Enter', 'ArrowDown'];
    expect(keys.map((key) => pressed(key))).toEqual(['/', '.', '?', undefined, undefined, undefined]);
  });

  it('do nothing where something is typed, held down, or meant for the browser', () => {
    expect(pressed('/', { target: { matches: () => true } })).toBeUndefined();
    expect(pressed('/', { target: { matches: () => false } })).toBe('/');
    expect(pressed('/', { ctrlKey: true })).toBeUndefined();
    expect(pressed('.', { repeat: true })).toBeUndefined();
    expect(pressed('.', { isComposing: true })).toBeUndefined();
    expect(pressed('?', { defaultPrevented: true })).toBeUndefined();
  });
});
