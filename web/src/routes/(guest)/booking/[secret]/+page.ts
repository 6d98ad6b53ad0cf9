import { error } from '@sveltejs/kit';
import { guestApi } from '$lib/api/client';
import { must, problemOf } from '$lib/api/problem';
import { speak } from '$lib/words/say.svelte';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  try {
    const path = { secret: params.secret };
    const booking = await must(guestApi.GET('/api/public/bookings/{secret}', { params: { path } }));
    await speak(booking.language);
    return { secret: params.secret, booking };
  } catch (thrown) {
    const problem = problemOf(thrown);
    error(
      problem.status === 404 ? 404 : 503,
      problem.status === 404 ? 'No booking has this link' : problem.title.replace(/\.$/, ''),
    );
  }
};
