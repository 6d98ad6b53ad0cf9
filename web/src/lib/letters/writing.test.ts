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

  const page = { kind: 'page' as const, id: 'g' };

  it('is an offer that is not chosen yet', () => {
    expect(obstacle({ ...preview, unfilled: ['boat', 'link'] }, { kind: 'nothing', id: null })).toBe(
      'Choose an offer, which fills in {{ link }}.',
    );
  });

  it('is a blank without anything known for it, or an offer without openings', () => {
    expect(obstacle(preview, page)).toBeUndefined();
    expect(obstacle({ ...preview, openings: null }, page)).toBeUndefined();
    expect(obstacle({ ...preview, unfilled: ['boat', 'link'] }, page)).toBe(
      'Nothing is known for {{ boat }}, {{ link }}.',
    );
    expect(obstacle({ ...preview, openings: 0 }, page)).toBe('Nothing of this offer is open.');
  });
});
