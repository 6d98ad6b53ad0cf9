import { describe, expect, it } from 'vitest';
import { endInWords, needsAnswer, replyInWords } from './reply';

const still = { reply: 'none', wishStart: null, waitsUntil: null, outside: [], cancelledAt: null } as const;

describe('what a guest answered', () => {
  it('is told in words, a wish before all', () => {
    expect(replyInWords({ reply: 'none', wishStart: null }, 'Europe/Copenhagen')).toBe('');
    expect(replyInWords({ reply: 'accepted', wishStart: null }, 'Europe/Copenhagen')).toBe('accepted the invitation');
    expect(replyInWords({ reply: 'accepted', wishStart: '2026-12-10T08:00:00Z' }, 'Europe/Copenhagen')).toMatch(
      /^asks for Thu 10, 0?9:00.* instead$/,
    );
  });

  it('needs somebody where it declines, wishes or waits, and nobody once it is over', () => {
    expect(needsAnswer({ ...still, outside: [] })).toBe(false);
    expect(needsAnswer({ ...still, outside: [], reply: 'accepted' })).toBe(false);
    expect(needsAnswer({ ...still, outside: [], reply: 'declined' })).toBe(true);
    expect(needsAnswer({ ...still, outside: [], wishStart: '2026-12-10T08:00:00Z' })).toBe(true);
    expect(needsAnswer({ ...still, outside: [], waitsUntil: '2026-12-10T08:00:00Z' })).toBe(true);
    expect(needsAnswer({ ...still, outside: [], reply: 'declined', cancelledAt: '2026-12-10T08:00:00Z' })).toBe(false);
  });
});

describe('how a booking ended', () => {
  it('names who, and the word that came with it', () => {
    expect(endInWords({ cancelledBy: 'guest', cancelWord: '' })).toBe('cancelled by the guest');
    expect(endInWords({ cancelledBy: 'team', cancelWord: 'The slip is flooded.' })).toBe(
      'cancelled by your team: The slip is flooded.',
    );
    expect(endInWords({ cancelledBy: 'lapsed', cancelWord: '' })).toBe('lapsed: nobody answered in time');
  });
});
