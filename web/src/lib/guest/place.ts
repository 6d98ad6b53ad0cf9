import type { Schemas } from '$lib/api/client';

type Kind = Schemas['PlaceKind'];

/** The place of an appointment as a guest reads it. */
export function placeWords(kind: Kind, place: string): string {
  switch (kind) {
    case 'phone':
      return place === '' ? 'By phone' : `By phone: ${place}`;
    case 'video':
      return place === '' ? 'By video' : `By video: ${place}`;
    default:
      return place;
  }
}

export const placeKinds: readonly { value: Kind; text: string }[] = [
  { value: 'inPerson', text: 'in person' },
  { value: 'phone', text: 'by phone' },
  { value: 'video', text: 'by video' },
  { value: 'ownWords', text: 'in own words' },
];
