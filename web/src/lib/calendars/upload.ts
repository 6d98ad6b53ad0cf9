import { api, type Schemas } from '$lib/api/client';
import { must } from '$lib/api/problem';

function formOf(fields: Record<string, string | File>): FormData {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.append(name, value);
  return form;
}

/** Joins a calendar file to a host. */
export function joinCalendar(hostId: string, name: string, file: File): Promise<Schemas['CalendarView']> {
  return must(
    api.POST('/api/calendars', {
      body: undefined as never,
      bodySerializer: () => formOf({ hostId, name, file }),
    }),
  );
}

/** Puts another file in a calendar's place. */
export function replaceFile(calendarId: string, file: File): Promise<Schemas['CalendarView']> {
  return must(
    api.PUT('/api/calendars/{id}/file', {
      params: { path: { id: calendarId } },
      body: undefined as never,
      bodySerializer: () => formOf({ file }),
    }),
  );
}
