import { describe, expect, it } from 'vitest';
import { untilOf } from './holding';

describe('until when picked times are held', () => {
  const now = '2026-12-07T07:00:00Z';
  const picked = ['2026-12-08T08:00:00Z', '2026-12-11T09:30:00Z'];

  it('ends with the last of them, or with the link', () => {
    expect(untilOf(picked, '2026-12-18', 'Europe/Copenhagen', now)).toBe('2026-12-11T10:30');
    expect(untilOf(picked, '2026-12-09', 'Europe/Copenhagen', now)).toBe('2026-12-10T00:00');
    expect(untilOf([], '2026-12-18', 'Europe/Copenhagen', now)).toBe('2026-12-19T00:00');
  });
});
