import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { speak } from '$lib/words/speak';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ params }) =>
  forScreen(async () => {
    const page = await must(api.GET('/api/pages/{id}/as-guest', { params: { path: { id: params.id } } }));
    await speak(page.language);
    return { id: params.id, page };
  });
