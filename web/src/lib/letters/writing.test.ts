import { describe, expect, it } from 'vitest';
import { choiceOf, choices, obstacle, offerOf } from './writing';

describe('what a letter offers', () => {
  const pattern = { kind: 'pattern' as const, id: 'p', until: '2026-12-18' };

  it('is one choice of a list', () => {
    expect(choices({ patterns: [{ id: 'p', name: 'First talk' }], links: [], pages: [] }).at(-1)).toEqual({
      value: 'pattern p',
      name: 'a new link from “First talk”',
    });
    expect(choiceOf(pattern)).toBe('pattern p');
    expect(choiceOf({ kind: 'nothing', id: null })).toBe('');
  });

  it('keeps its days from one pattern to another, and for nothing else', () => {
    expect(offerOf('pattern q', pattern)).toEqual({ ...pattern, id: 'q' });
    expect(offerOf('page g', pattern)).toEqual({ kind: 'page', id: 'g' });
    expect(offerOf('', pattern)).toEqual({ kind: 'nothing', id: null });
  });
});

describe('what keeps a letter from being sent', () => {
  const preview = { subject: '', text: '', html: '', to: '', unfilled: [], openings: 3, language: 'en', zone: 'UTC' };

  it('is a blank without anything known for it, or an offer without openings', () => {
    expect(obstacle(preview)).toBeUndefined();
    expect(obstacle({ ...preview, openings: null })).toBeUndefined();
    expect(obstacle({ ...preview, unfilled: ['boat', 'link'] })).toBe('Nothing is known for {{ boat }}, {{ link }}.');
    expect(obstacle({ ...preview, openings: 0 })).toBe('Nothing of this offer is open.');
  });
});
