import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { stateInWords } from './words';

function row(more: Partial<Schemas['PostRow']>): Schemas['PostRow'] {
  return {
    id: 'm',
    kind: 'bookedForGuest',
    state: 'due',
    toName: '',
    toEmail: '',
    subject: '',
    writtenAt: '2026-12-07T07:00:00Z',
    at: '2026-12-07T07:05:00Z',
    attempts: 0,
    fault: null,
    heldBack: null,
    ...more,
  };
}

describe('what has become of a message', () => {
  it('is said with when and why', () => {
    const zone = 'Europe/Copenhagen';
    expect(stateInWords(row({}), zone)).toMatch(/^due .*0?8:05/);
    expect(stateInWords(row({ state: 'sent' }), zone)).toMatch(/^sent .*0?8:05/);
    expect(stateInWords(row({ attempts: 2, fault: 'It is away.' }), zone)).toMatch(
      /^tried 2 times, again .*: It is away\.$/,
    );
    expect(stateInWords(row({ state: 'failed', fault: 'Nobody there.' }), zone)).toBe('not delivered: Nobody there.');
  });
});
