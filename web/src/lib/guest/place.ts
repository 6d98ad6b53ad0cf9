import type { Schemas } from '$lib/api/client';
import { say } from '$lib/words/say.svelte';

type Kind = Schemas['PlaceKind'];

/** The place of an appointment as a guest reads it. */
export function placeWords(kind: Kind, place: string, hostsRing = false): string {
  switch (kind) {
    case 'phone':
      if (hostsRing) return place === '' ? say('place.we-ring') : say('place.we-ring-at', { place });
      return place === '' ? say('place.phone') : say('place.phone-at', { place });
    case 'video':
      return place === '' ? say('place.video') : say('place.video-at', { place });
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
