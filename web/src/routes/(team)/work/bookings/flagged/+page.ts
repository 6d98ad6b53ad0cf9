import { api } from '$lib/api/client';
import { forScreen } from '$lib/api/loading';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = () => forScreen(async () => ({ flagged: await must(api.GET('/api/bookings/flagged')) }));
