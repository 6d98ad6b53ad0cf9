import { describe, expect, it } from 'vitest';
import { addressFrom } from './address';

describe('an address from a title', () => {
  it.each([
    ['Hull survey on the slip', 'hull-survey-on-the-slip'],
    ['  Été & Bådeværft!  ', 'ete-baadevaerft'],
    ['Straße 7', 'strasse-7'],
    ['…', ''],
  ])('%s becomes %s', (title, address) => expect(addressFrom(title)).toBe(address));

  it('is cut at 60 characters and never ends in a hyphen', () => {
    const address = addressFrom(`${'a'.repeat(59)} b c`);
    expect(address).toBe('a'.repeat(59));
  });
});
