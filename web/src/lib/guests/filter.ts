import type { Schemas } from '$lib/api/client';
import { languages } from '$lib/links/languages';

export type GuestFilter = Schemas['GuestFilter'];
export type FieldCondition = Schemas['FieldCondition'];

/** Everybody, by name. */
export const everybody: GuestFilter = {
  search: '',
  keeper: null,
  withoutKeeper: false,
  appointments: 'any',
  offers: 'any',
  language: '',
  flagged: false,
  withoutEmail: false,
  doubles: false,
  fields: [],
  order: 'name',
};

/** The filter that stands in an address, so that a screen can be reloaded and sent on. */
export function filterIn(query: URLSearchParams): GuestFilter {
  const text = query.get('filter');
  const search = query.get('search') ?? '';
  if (text === null) return { ...everybody, search };
  try {
    return { ...everybody, ...(JSON.parse(text) as Partial<GuestFilter>), search };
  } catch {
    return { ...everybody, search };
  }
}

/** Only what differs from everybody stands there. */
export function putFilter(query: URLSearchParams, filter: GuestFilter): void {
  const { search, ...rest } = withoutDefaults(filter);
  if (search !== undefined) query.set('search', search);
  if (Object.keys(rest).length > 0) query.set('filter', JSON.stringify(rest));
}

export function withoutDefaults(filter: GuestFilter): Partial<GuestFilter> {
  return Object.fromEntries(
    Object.entries(filter).filter(
      ([name, value]) =>
        value !== null && JSON.stringify(value) !== JSON.stringify(everybody[name as keyof GuestFilter]),
    ),
  );
}

export const isEverybody = (filter: GuestFilter): boolean =>
  Object.keys(withoutDefaults({ ...filter, order: 'name' })).length === 0;

/** Whether two choose the same guests in the same order. */
export const isSameFilter = (a: GuestFilter, b: GuestFilter): boolean =>
  JSON.stringify(Object.entries(withoutDefaults(a)).sort()) ===
  JSON.stringify(Object.entries(withoutDefaults(b)).sort());

export const appointmentChoices: { value: Schemas['GuestAppointments']; name: string }[] = [
  { value: 'any', name: 'any appointments' },
  { value: 'toCome', name: 'an appointment to come' },
  { value: 'past', name: 'a past appointment' },
  { value: 'none', name: 'no appointment' },
];

export const offerChoices: { value: Schemas['GuestOffers']; name: string }[] = [
  { value: 'any', name: 'any links' },
  { value: 'out', name: 'a link that is out' },
  { value: 'none', name: 'no link so far' },
];

/** What can be asked of a field of each kind. */
export const testsOf: Record<Schemas['GuestFieldKind'], Schemas['FieldTest'][]> = {
  text: ['is', 'filled', 'blank'],
  number: ['is', 'from', 'to', 'filled', 'blank'],
  date: ['is', 'from', 'to', 'filled', 'blank'],
  choice: ['is', 'filled', 'blank'],
  yesNo: ['is', 'filled', 'blank'],
};

export function testInWords(kind: Schemas['GuestFieldKind'], test: Schemas['FieldTest']): string {
  if (test === 'filled') return 'is filled in';
  if (test === 'blank') return 'is blank';
  if (test === 'is') return kind === 'text' ? 'contains' : 'is';
  if (kind === 'date') return test === 'from' ? 'is on or after' : 'is on or before';
  return test === 'from' ? 'is at least' : 'is at most';
}

/** The name of a language, as the team reads it. */
export const languageName = (tag: string): string => languages.find((one) => one.value === tag)?.name ?? tag;

/** The value of a field as it is read. */
export function valueInWords(kind: Schemas['GuestFieldKind'], value: string): string {
  if (kind === 'yesNo') return value === 'yes' ? 'Yes' : 'No';
  return value;
}

/** The same for those who were not here since a date; for all of them where it is empty. */
export function since(filter: GuestFilter, date: string): GuestFilter {
  const next = { ...filter };
  if (date === '') delete next.notSince;
  else next.notSince = date;
  return next;
}
