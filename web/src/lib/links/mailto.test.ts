import { describe, expect, it } from 'vitest';
import { mailtoOf } from './mailto';

describe('a mail for the reader’s own program', () => {
  it('has guests, subject and text, encoded as RFC 6068 asks', () => {
    const mail = new URL(mailtoOf(['ottilie@wren.example', 'a+b@wren.example'], 'Hull & keel', 'Tue 9:00\nWed 10:00'));
    expect(mail.pathname).toBe('ottilie%40wren.example,a%2Bb%40wren.example');
    expect(mail.searchParams.get('subject')).toBe('Hull & keel');
    expect(mail.searchParams.get('body')).toBe('Tue 9:00\r\nWed 10:00');
    expect(mail.search).not.toContain('+');
  });
});
