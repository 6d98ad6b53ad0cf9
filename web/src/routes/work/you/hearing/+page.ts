import { api } from '$lib/api/client';
import { must } from '$lib/api/problem';
import type { PageLoad } from './$types';

export const load: PageLoad = async () => ({ hearing: await must(api.GET('/api/me/hearing')) });
