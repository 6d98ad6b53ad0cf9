import { describe, expect, it } from 'vitest';
import { readersLanguage, say } from './say.svelte';

describe('the language of a guest', () => {
  it('is the first of those they like that we have', () => {
    expect(readersLanguage(['nn-NO', 'da-DK', 'en'])).toBe('da');
    expect(readersLanguage(['de-AT', 'de'])).toBe('de');
    expect(readersLanguage(['ja-JP'])).toBe('en');
    expect(readersLanguage([])).toBe('en');
  });

  it('fills in what it is given, and nothing that a guest typed', () => {
    expect(say('Reserve {time} on {day}', { time: '09:00', day: '{time}' })).toBe('Reserve 09:00 on {time}');
    expect(say('Ask {names}.')).toBe('Ask {names}.');
  });
});
