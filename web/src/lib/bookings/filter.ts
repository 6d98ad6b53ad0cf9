import type { Schemas } from '$lib/api/client';

export type BookingFilter = Schemas['BookingFilter'];

/** What is to come, as it stands at first. */
export const toCome: BookingFilter = {
  search: '',
  when: 'toCome',
  page: null,
  kind: '',
  host: null,
  guest: null,
  keeper: null,
  withoutKeeper: false,
  state: 'any',
  flagged: false,
  order: 'usual',
};

const names = [...Object.keys(toCome), 'from', 'to'] as (keyof BookingFilter)[];
const switches: readonly string[] = ['withoutKeeper', 'flagged'];

/** The filter that stands in an address, so that a screen can be reloaded and sent on. */
export function filterIn(query: URLSearchParams): BookingFilter {
  const found = names.flatMap((name) => {
    const text = query.get(name);
    return text === null || text === '' ? [] : [[name, switches.includes(name) ? text === 'true' : text]];
  });
  return { ...toCome, ...(Object.fromEntries(found) as Partial<BookingFilter>) };
}

/** Only what differs from what is to come stands there. */
export function putFilter(query: URLSearchParams, filter: BookingFilter): void {
  for (const name of names) {
    const value = filter[name];
    if (value !== undefined && value !== null && value !== toCome[name]) query.set(name, String(value));
  }
}

/** The same as it is asked of the server. */
export function asked(filter: BookingFilter): Record<string, string> {
  const query = new URLSearchParams();
  putFilter(query, filter);
  return Object.fromEntries(query);
}

export const isSameFilter = (one: BookingFilter, other: BookingFilter): boolean =>
  JSON.stringify(Object.entries(asked(one))) === JSON.stringify(Object.entries(asked(other)));

/** Whether anything is looked for, beyond when it is and in which order. */
export const isChosen = (filter: BookingFilter): boolean =>
  !isSameFilter({ ...filter, when: 'toCome', order: 'usual' }, toCome);

export const whenChoices = [
  { value: 'toCome', text: 'To come' },
  { value: 'past', text: 'Past' },
  { value: 'all', text: 'All' },
  { value: 'cancelled', text: 'Cancelled' },
] as const satisfies { value: Schemas['WhichBookings']; text: string }[];

const states: Record<Schemas['BookingState'], string> = {
  any: 'in any state',
  asked: 'asked for',
  confirmed: 'confirmed',
  moved: 'moved',
  happened: 'that happened',
  missed: 'that were missed',
  notNoted: 'over, outcome not noted',
};

const statesWhen: Record<Schemas['WhichBookings'], Schemas['BookingState'][]> = {
  toCome: ['any', 'asked', 'confirmed', 'moved'],
  past: ['any', 'happened', 'missed', 'notNoted', 'moved'],
  all: ['any', 'asked', 'confirmed', 'moved', 'happened', 'missed', 'notNoted'],
  cancelled: ['any', 'moved'],
};

/** The states that bookings of that time can be in. */
export const stateChoices = (
  when: Schemas['WhichBookings'] = 'toCome',
): { value: Schemas['BookingState']; name: string }[] =>
  statesWhen[when].map((value) => ({ value, name: states[value] }));

export const orderChoices: { value: Schemas['BookingOrder']; name: string }[] = [
  { value: 'usual', name: 'in the usual order' },
  { value: 'soonest', name: 'earliest first' },
  { value: 'latest', name: 'latest first' },
  { value: 'newest', name: 'last booked first' },
  { value: 'guest', name: 'by guest' },
  { value: 'page', name: 'by page' },
];

/** Whether bookings of one day stand together in that order. */
export const goesByDay = (filter: BookingFilter): boolean =>
  filter.order === 'soonest' ||
  filter.order === 'latest' ||
  ((filter.order ?? 'usual') === 'usual' && filter.when !== 'cancelled');

/** The same for another time; a state that its bookings can't be in is let go. */
export function whenIs(filter: BookingFilter, when: Schemas['WhichBookings']): BookingFilter {
  const isPossible = statesWhen[when].includes(filter.state ?? 'any');
  return { ...filter, when, state: isPossible ? (filter.state ?? 'any') : 'any' };
}

/** The same from or up to a date; without that limit where it is empty. */
export function dated(filter: BookingFilter, name: 'from' | 'to', date: string): BookingFilter {
  const next = { ...filter };
  delete next[name];
  return date === '' ? next : { ...next, [name]: date };
}
