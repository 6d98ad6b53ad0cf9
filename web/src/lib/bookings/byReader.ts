import type { Schemas } from '$lib/api/client';

type Mail = Schemas['PostRow'];

/** Messages by whom they went to: whoever had the latest first, and of each the latest first. */
export function byReader(post: readonly Mail[]): { reader: string; mails: Mail[] }[] {
  const readers = new Map<string, Mail[]>();
  for (const mail of post) {
    const key = mail.toEmail.toLowerCase();
    readers.set(key, [...(readers.get(key) ?? []), mail]);
  }
  return [...readers.values()].map((mails) => ({ reader: mails[0]?.toName ?? '', mails }));
}
