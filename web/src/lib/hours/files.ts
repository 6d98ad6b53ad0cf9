import { api, type Schemas } from '$lib/api/client';
import { must } from '$lib/api/problem';

function formOf(zone: string, file: File): never {
  const form = new FormData();
  form.append('zone', zone);
  form.append('file', file);
  // The API's description has no words for a form with a file, so its body is passed as it is.
  return form as never;
}

const asItIs = { bodySerializer: (form: unknown) => form as FormData };

/** The hours in a VAVAILABILITY file; nothing is saved. */
export async function readAvailability(zone: string, file: File): Promise<Schemas['HoursDocument']> {
  return (await must(
    api.POST('/api/hours/read', { body: formOf(zone, file), ...asItIs }),
  )) as unknown as Schemas['HoursDocument'];
}

/** The whole days of a calendar file, as closed dates; nothing is saved. */
export async function readHolidays(zone: string, file: File): Promise<Schemas['HolidaysRead']> {
  return (await must(
    api.POST('/api/hours/holidays', { body: formOf(zone, file), ...asItIs }),
  )) as unknown as Schemas['HolidaysRead'];
}
