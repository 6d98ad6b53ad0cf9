import { api } from '$lib/api/client';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = async () => ({ notifications: await must(api.GET('/api/me/notifications')) });
