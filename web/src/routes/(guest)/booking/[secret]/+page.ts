import { guestApi } from '$lib/api/client';
import { must } from '$lib/api/problem';
import { forGuest } from '$lib/guest/loading';
import { setClock } from '$lib/time/format';
import { learnOffsets } from '$lib/time/offsets';
import { speak } from '$lib/words/speak';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  const path = { secret: params.secret };
  const asked = guestApi.GET('/api/public/bookings/{secret}', { params: { path } });
  const booking = await forGuest(must(asked), 'missing.booking');
  await speak(booking.language);
  learnOffsets(booking.offsets ?? []);
  setClock(booking.clock ?? undefined);
  return { secret: params.secret, booking };
};
