import { describe, expect, it } from 'vitest';
import { inWords, unitOf } from './units';

describe('minutes in the unit people would use', () => {
  it.each([
    [0, 60, 'none'],
    [45, 1, '45 minutes'],
    [60, 60, '1 hour'],
    [90, 1, '90 minutes'],
    [240, 60, '4 hours'],
    [1440, 1440, '1 day'],
    [2880, 1440, '2 days'],
  ])('%i', (minutes, unit, words) => {
    expect(unitOf(minutes)).toBe(unit);
    expect(inWords(minutes)).toBe(words);
  });
});
