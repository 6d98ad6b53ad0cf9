import { expect, it } from 'vitest';
import { placeIn, putPlace, type ListPlace } from './listPlace';

const through = (place: ListPlace): ListPlace => {
  const query = new URLSearchParams();
  putPlace(query, place);
  return placeIn(new URLSearchParams(query.toString()));
};

it('is in an address as it was put there, and the first run is in none', () => {
  for (const place of [{}, { after: 'a+b=' }, { before: 'x/y' }]) expect(through(place)).toEqual(place);
  expect(placeIn(new URLSearchParams('after=&before='))).toEqual({});
});

it('is one place where an address names two', () => {
  expect(placeIn(new URLSearchParams('after=a&before=b'))).toEqual({ before: 'b' });
});
