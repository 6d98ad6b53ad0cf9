import { describe, expect, it } from 'vitest';
import { lineUpInWords, newForm } from './form';

describe('a line-up in words', () => {
  it.each([
    [[['Ann']], 'Ann'],
    [[['Ann', 'Ben', 'Cem']], 'Ann, Ben or Cem'],
    [[['Ann'], ['Ben']], 'Ann and Ben'],
    [[['Ann'], ['Ben'], ['Cem', 'Dag']], 'Ann, Ben, and Cem or Dag'],
  ])('%j is read as %s', (seats, words) => {
    expect(lineUpInWords(seats)).toBe(words);
  });
});

describe('a new page', () => {
  it('starts from the usual settings', () => {
    const usual = {
      duration: 45,
      bufferBefore: 5,
      bufferAfter: 10,
      notice: 60,
      placeKind: 'video' as const,
      place: 'Room 1',
      reminders: null,
      language: null,
      clock: null,
    };
    const form = newForm('Europe/Copenhagen', 'd', 'h', usual);
    expect(form).toMatchObject({
      placeKind: 'video',
      place: 'Room 1',
      times: { durations: [45], bufferBefore: 5, bufferAfter: 10, notice: 60 },
    });
  });
});
