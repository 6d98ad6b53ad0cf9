import { api, type Schemas } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import { placeIn } from '$lib/ui/listPlace';
import type { PageLoad } from './$types';

const STATES: readonly Schemas['MessageState'][] = ['due', 'sent', 'failed'];

/** What is shown is in the address, so that it can be reloaded and sent on. */
export const load: PageLoad = ({ url }) =>
  forScreen(async () => {
    const state = STATES.find((each) => each === url.searchParams.get('state'));
    const search = url.searchParams.get('search') ?? '';
    const place = placeIn(url.searchParams);
    const opened = url.searchParams.get('message') ?? undefined;
    const query = { ...(state ? { state } : {}), search: search || undefined, ...place };
    const [post, message] = await Promise.all([
      must(api.GET('/api/post', { params: { query } })),
      opened ? must(api.GET('/api/post/{id}', { params: { path: { id: opened } } })) : Promise.resolve(undefined),
    ]);
    return { state, search, place, post, message };
  });
