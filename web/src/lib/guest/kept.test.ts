import { describe, expect, it } from 'vitest';
import { keep, keptOf } from './kept';

function store(): Storage {
  const kept = new Map<string, string>();
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  } as Storage;
}

describe('what a guest has typed', () => {
  const typed = { name: 'Ottilie', email: 'o@wren.example', answers: { length: '11.4' } };

  it('comes back on the page it was typed on, until it is forgotten', () => {
    const here = store();
    keep('desk/page', typed, here);
    expect(keptOf('desk/page', here)).toEqual(typed);
    expect(keptOf('desk/other', here)).toBeUndefined();
    keep('desk/page', undefined, here);
    expect(keptOf('desk/page', here)).toBeUndefined();
  });

  it('is nothing where the browser keeps something else, or refuses', () => {
    const here = store();
    here.setItem('guest:desk/page', '{"name":1}');
    expect(keptOf('desk/page', here)).toBeUndefined();
    here.setItem('guest:desk/page', 'not json');
    expect(keptOf('desk/page', here)).toBeUndefined();
    const closed = {
      getItem: () => {
        throw new Error('closed');
      },
      setItem: () => {
        throw new Error('closed');
      },
      removeItem: () => undefined,
    };
    keep('desk/page', typed, closed);
    expect(keptOf('desk/page', closed)).toBeUndefined();
  });
});
