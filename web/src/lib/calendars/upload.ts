import { api, type Schemas } from '$lib/api/client';
import { must } from '$lib/api/problem';

function formOf(fields: Record<string, string | File>): FormData {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.append(name, value);
  return form;
}

// The API's description has no words for a form with a file, so its body is passed as it is.
const asItIs = { bodySerializer: (form: unknown) => form as FormData };

/** Joins a calendar file to a host, or to several. */
export function joinFile(
  owners: Schemas['CalendarOwners'],
  name: string,
  file: File,
): Promise<Schemas['CalendarView']> {
  const whose: Record<string, string> = owners.hostId
    ? { hostId: owners.hostId }
    : { hostIds: (owners.hostIds ?? []).join(',') };
  return must(api.POST('/api/calendars', { body: formOf({ ...whose, name, file }) as never, ...asItIs }));
}

/** Puts another file in a calendar's place. */
export function replaceFile(calendarId: string, file: File): Promise<Schemas['CalendarView']> {
  return must(
    api.PUT('/api/calendars/{id}/file', {
      params: { path: { id: calendarId } },
      body: formOf({ file }) as never,
      ...asItIs,
    }),
  );
}
