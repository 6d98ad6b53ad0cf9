import { describe, expect, it } from 'vitest';
import { typedLength } from './typedLength';

describe('a length as it is typed', () => {
  it.each([
    ['50', 50],
    [' 90 min ', 90],
    ['1 h 20', 80],
    ['1h20', 80],
    ['1:20', 80],
    ['2 h', 120],
    ['1.5 h', 90],
    ['1,5 hours', 90],
  ])('reads %s', (text, minutes) => expect(typedLength(text)).toBe(minutes));

  it.each(['', 'soon', '1:75', '0', '-5', 'h'])('takes %s for none', (text) =>
    expect(typedLength(text)).toBeUndefined(),
  );
});
