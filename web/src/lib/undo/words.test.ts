import { describe, expect, it } from 'vitest';
import { left, mailOf, said } from './words';

describe('what can be taken back', () => {
  it('says how long it can be', () => {
    const now = Date.parse('2026-12-07T07:00:00Z');
    expect(left('2026-12-07T07:01:00Z', now)).toBe('1:00');
    expect(left('2026-12-07T07:00:08.200Z', now)).toBe('0:09');
    expect(left('2026-12-07T07:00:00Z', now)).toBeUndefined();
  });

  it('says what was done, and how many other things with it', () => {
    expect(said({ what: ['Moved the booking of Ada'], more: 0 })).toBe('Moved the booking of Ada.');
    expect(said({ what: ['Gave away', 'Gave away', 'Gave away'], more: 4 })).toBe('Gave away, and 6 more.');
    expect(said({ what: [], more: 0 })).toBe('Done.');
  });

  it('says what waits for it', () => {
    expect([0, 1, 3].map(mailOf)).toEqual(['', '1 mail waits.', '3 mails wait.']);
  });
});
