import { expect, it } from 'vitest';
import { addressOf, filterIn } from './filter';

it('comes out of the address as it went in, and nothing stands there for what is not asked', () => {
  const filter = { words: 'gave', from: '2026-12-07' };
  expect(addressOf(filter)).toBe('?words=gave&from=2026-12-07');
  expect(filterIn(new URLSearchParams(addressOf(filter)))).toEqual(filter);
  expect(addressOf({ words: '', person: '' })).toBe('?');
  expect(filterIn(new URLSearchParams('person=&odd=1'))).toEqual({});
});
