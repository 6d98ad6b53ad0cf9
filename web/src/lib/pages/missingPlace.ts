import type { Schemas } from '$lib/api/client';

/**
 * What guests would not know of the place; undefined where it is said.
 * @param hostsRing By phone: whether the hosts ring, and so need no number of ours.
 */
export function missingPlace(kind: Schemas['PlaceKind'], place: string, hostsRing: boolean): string | undefined {
  if (place.trim() !== '') return undefined;
  if (kind === 'inPerson') return 'It’s in person, but no place is given.';
  if (kind === 'phone' && !hostsRing) return 'Guests are to call, but no number is given.';
  return kind === 'ownWords' ? 'No place is given.' : undefined;
}
