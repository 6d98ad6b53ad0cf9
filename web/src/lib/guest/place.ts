import type { Schemas } from '$lib/api/client';
import { say } from '$lib/words/say.svelte';

type Kind = Schemas['PlaceKind'];

/** The place of an appointment as a guest reads it. */
export function placeWords(kind: Kind, place: string, hostsRing = false): string {
  switch (kind) {
    case 'phone':
      if (hostsRing)
        return place === '' ? say('By phone: we ring you') : say('By phone: we ring you. {place}', { place });
      return place === '' ? say('By phone') : say('By phone: {place}', { place });
    case 'video':
      return place === '' ? say('By video') : say('By video: {place}', { place });
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
