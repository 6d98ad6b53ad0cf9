import { describe, expect, it } from 'vitest';
import {
  asked,
  dated,
  filterIn,
  goesByDay,
  isChosen,
  isSameFilter,
  putFilter,
  stateChoices,
  toCome,
  whenIs,
} from './filter';

const ofHost = { ...toCome, host: 'h1', flagged: true, from: '2026-12-07', when: 'past' } as const;

describe('the filter of bookings', () => {
  it('comes out of the address as it went in, and only what differs stands there', () => {
    const query = new URLSearchParams();
    putFilter(query, ofHost);
    expect(query.toString()).toBe('when=past&host=h1&flagged=true&from=2026-12-07');
    expect(dated(ofHost, 'from', '')).not.toHaveProperty('from');
    expect(filterIn(query)).toEqual(ofHost);
    const none = new URLSearchParams();
    putFilter(none, toCome);
    expect(none.size).toBe(0);
    expect(filterIn(none)).toEqual(toCome);
  });

  it('is the same whatever is left out or null', () => {
    expect(isSameFilter({ ...toCome }, { search: '', kind: '', withoutKeeper: false, flagged: false })).toBe(true);
    expect(isSameFilter(toCome, ofHost)).toBe(false);
    expect(asked({ ...toCome, host: null })).toEqual({});
  });

  it('looks for something beyond time and order', () => {
    expect(isChosen({ ...toCome, when: 'past', order: 'guest' })).toBe(false);
    expect(isChosen({ ...toCome, flagged: true })).toBe(true);
  });

  it('lets go of a state that bookings of another time can’t be in', () => {
    expect(whenIs({ ...toCome, when: 'past', state: 'missed' }, 'toCome').state).toBe('any');
    expect(whenIs({ ...toCome, state: 'moved' }, 'past').state).toBe('moved');
    expect(stateChoices('past').map((choice) => choice.value)).not.toContain('asked');
  });

  it('goes by day where its order is that of time', () => {
    expect(goesByDay(toCome)).toBe(true);
    expect(goesByDay({ ...toCome, when: 'cancelled' })).toBe(false);
    expect(goesByDay({ ...toCome, when: 'cancelled', order: 'soonest' })).toBe(true);
    expect(goesByDay({ ...toCome, order: 'guest' })).toBe(false);
  });
});
