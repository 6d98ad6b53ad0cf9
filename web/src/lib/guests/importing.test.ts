import { describe, expect, it } from 'vitest';
import { choiceOf, keyOf } from './importing';

describe('what a column is taken for', () => {
  it('is one text and comes back', () => {
    const field = { meaning: 'field' as const, field: '00000000-0000-0000-0000-000000000001' };
    expect(choiceOf(keyOf(field))).toEqual(field);
    expect(choiceOf(keyOf({ meaning: 'email', field: null }))).toEqual({ meaning: 'email', field: null });
  });
});
