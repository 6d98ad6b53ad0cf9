import { describe, expect, it } from 'vitest';
import { readyEnds } from './ends';

describe('ends that are ready to press', () => {
  it('are the Fridays of three weeks and the end of the month', () => {
    expect(readyEnds('2026-12-07')).toEqual(['2026-12-11', '2026-12-18', '2026-12-25', '2026-12-31']);
    expect(readyEnds('2026-12-12')).toEqual(['2026-12-18', '2026-12-25', '2026-12-31', '2027-01-01']);
    expect(readyEnds('2026-12-31')).toEqual(['2026-12-31', '2027-01-01', '2027-01-08', '2027-01-15']);
  });
});
