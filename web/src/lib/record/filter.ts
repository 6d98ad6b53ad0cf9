/** Which lines of the record are shown; what is left out asks for nothing. */
export interface RecordFilter {
  words?: string;
  person?: string;
  subject?: string;
  from?: string;
  to?: string;
}

const names = ['words', 'person', 'subject', 'from', 'to'] as const;

export const filterIn = (query: URLSearchParams): RecordFilter =>
  Object.fromEntries(
    names.flatMap((name) => {
      const value = query.get(name);
      return value ? [[name, value]] : [];
    }),
  );

export const addressOf = (filter: RecordFilter): string => {
  const query = new URLSearchParams();
  for (const name of names) {
    const value = filter[name];
    if (value) query.set(name, value);
  }
  return query.size > 0 ? `?${query}` : '?';
};
