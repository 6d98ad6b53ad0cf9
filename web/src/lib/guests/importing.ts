import { api, type Schemas } from '$lib/api/client';
import { must } from '$lib/api/problem';

type Meaning = Schemas['ColumnMeaning'];

/** What a column can be taken for, as it is chosen. Fields follow after them. */
export const meanings: { value: Meaning; name: string }[] = [
  { value: 'nothing', name: 'Leave out' },
  { value: 'name', name: 'Name' },
  { value: 'givenName', name: 'Given name' },
  { value: 'familyName', name: 'Family name' },
  { value: 'email', name: 'Email' },
  { value: 'otherEmails', name: 'Other emails' },
  { value: 'organisation', name: 'Organisation' },
  { value: 'phone', name: 'Phone' },
  { value: 'zone', name: 'Time zone' },
  { value: 'language', name: 'Language' },
  { value: 'keeper', name: 'Keeper' },
  { value: 'note', name: 'Note' },
];

/** A choice as one text, which a select can hold, and back. */
export const keyOf = (choice: Schemas['ColumnChoice']): string => choice.field ?? choice.meaning;

export function choiceOf(key: string): Schemas['ColumnChoice'] {
  const known = meanings.find((one) => one.value === key);
  return known ? { meaning: known.value, field: null } : { meaning: 'field', field: key };
}

export const separators: { value: string; name: string }[] = [
  { value: ',', name: 'comma' },
  { value: ';', name: 'semicolon' },
  { value: '\t', name: 'tab' },
  { value: '|', name: 'bar' },
];

export const outcomes: Record<Schemas['RowOutcome'], string> = {
  new: 'new',
  changed: 'changed',
  unchanged: 'unchanged',
  unclear: 'unclear',
};

/** Reads a file; nothing comes in yet. */
export async function lookAt(file: File): Promise<Schemas['ImportPreview']> {
  const form = new FormData();
  form.append('file', file);
  // The API's description has no words for a form with a file, so its body is passed as it is.
  return must(
    api.POST('/api/guests/imports', {
      body: form as never,
      bodySerializer: (body: unknown) => body as FormData,
    }),
  );
}
