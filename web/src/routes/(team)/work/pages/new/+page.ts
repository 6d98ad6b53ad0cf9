import { forScreen } from '$lib/api/loading';
import { loadSetting } from '$lib/pages/setting';
import type { PageLoad } from './$types';

export const load: PageLoad = () => forScreen(loadSetting);
