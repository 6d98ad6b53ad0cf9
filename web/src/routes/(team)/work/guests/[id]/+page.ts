import { redirect } from '@sveltejs/kit';
import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params: { id } }) => {
  const data = await forScreen(async () => {
    const path = { id };
    const [guest, history, fields, people] = await Promise.all([
      must(api.GET('/api/guests/{id}', { params: { path } })),
      must(api.GET('/api/guests/{id}/history', { params: { path } })),
      must(api.GET('/api/guests/fields')),
      must(api.GET('/api/people')),
    ]);
    return { guest, history, fields, people };
  });
  // Who was merged into another is looked at there.
  if (data.guest.id !== id) redirect(307, `/work/guests/${data.guest.id}`);
  return data;
};
