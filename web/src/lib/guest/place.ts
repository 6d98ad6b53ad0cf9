import type { Schemas } from '$lib/api/client';
import { say } from '$lib/words/say.svelte';

type Kind = Schemas['PlaceKind'];

/**
 * The place of an appointment as a guest reads it.
 * @param number of the guest, whom the hosts ring; empty where it is not known.
 */
export function placeWords(kind: Kind, place: string, hostsRing = false, number = ''): string {
  switch (kind) {
    case 'phone':
      if (hostsRing && number !== '')
        return [say('place.we-ring-on', { number }), ...(place === '' ? [] : [place])].join('. ');
      if (hostsRing) return place === '' ? say('place.we-ring') : say('place.we-ring-at', { place });
      return place === '' ? say('place.phone') : say('place.ring-us', { place });
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
  { value: 'ownWords', text: 'in your own words' },
];
