import { expect, it } from 'vitest';
import { moved } from './lists';

it('moves one of a list by a place and loses none', () => {
  expect(moved(['a', 'b', 'c'], 2, -1)).toEqual(['a', 'c', 'b']);
  expect(moved(['a', 'b', 'c'], 0, 1)).toEqual(['b', 'a', 'c']);
});
