/**
 * Which run of a list is asked for: what comes after or before a place that an answer told of; with neither, the first.
 */
export interface ListPlace {
  after?: string;
  before?: string;
}

/** The place that an address names. */
export function placeIn(query: URLSearchParams): ListPlace {
  const [after, before] = [query.get('after'), query.get('before')];
  if (before) return { before };
  return after ? { after } : {};
}

/** Names the place in an address; the first run has none. */
export function putPlace(query: URLSearchParams, place: ListPlace): void {
  if (place.before) query.set('before', place.before);
  else if (place.after) query.set('after', place.after);
}

/** Beyond so many the server stops counting. */
const MOST_COUNTED = 10_000;

/** How many rows a list has, as they are counted. */
export const inGroups = (n: number): string =>
  n > MOST_COUNTED ? `more than ${inGroups(MOST_COUNTED)}` : n.toLocaleString('en');
