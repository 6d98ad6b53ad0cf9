import type { Schemas } from '$lib/api/client';

type Calendar = Schemas['CalendarView'];
type Choice = Schemas['CalendarChoice'];

/** The calendars that count for a host, those of their own first. */
export function calendarsOf(host: string, calendars: readonly Calendar[]): Calendar[] {
  return calendars
    .filter((calendar) => calendar.for.includes(host))
    .sort((a, b) => Number(a.hostId === null) - Number(b.hostId === null));
}

export function usuallyAsked(own: readonly Calendar[]): string[] {
  return own.filter((calendar) => calendar.isAsked).map((calendar) => calendar.id);
}

function same(one: readonly string[], other: readonly string[]): boolean {
  return one.length === other.length && one.every((id) => other.includes(id));
}

/** The choices with one host's changed; what is as usual is no choice. */
export function choose(
  choices: readonly Choice[],
  host: string,
  own: readonly Calendar[],
  asked: readonly string[],
  writtenTo: string | null,
): Choice[] {
  const usual = own.find((calendar) => calendar.isWrittenTo)?.id ?? null;
  const choice: Choice = {
    hostId: host,
    asked: same(asked, usuallyAsked(own)) ? null : [...asked],
    writtenTo: writtenTo === usual ? null : writtenTo,
  };
  const others = choices.filter((other) => other.hostId !== host);
  return choice.asked === null && choice.writtenTo === null ? others : [...others, choice];
}

function listed(names: readonly string[]): string {
  const quoted = names.map((name) => `“${name}”`);
  return quoted.length < 2 ? quoted.join('') : `${quoted.slice(0, -1).join(', ')} and ${quoted.at(-1) ?? ''}`;
}

/** What a page asks and writes for a host, as a sentence. */
export function choiceInWords(choice: Choice | undefined, own: readonly Calendar[]): string {
  const nameOf = (calendar: Calendar): string => calendar.name;
  // What is kept here is always looked at; it is worth a word where something stands in it.
  const asked = own
    .filter(
      (calendar) =>
        (choice?.asked ?? usuallyAsked(own)).includes(calendar.id) &&
        (calendar.kind !== 'builtIn' || calendar.entries > 0),
    )
    .map(nameOf);
  const written = own.find((calendar) => (choice?.writtenTo ? calendar.id === choice.writtenTo : calendar.isWrittenTo));
  const asks = asked.length === 0 ? 'asks no calendar' : `asks ${listed(asked)}`;
  const writes =
    written && written.kind !== 'builtIn'
      ? `writes bookings to “${written.name}”`
      : 'writes bookings to no other calendar';
  const [askedUsually, writtenUsually] = [(choice?.asked ?? null) === null, (choice?.writtenTo ?? null) === null];
  if (askedUsually && writtenUsually) return `${asks} and ${writes}, as usual`;
  return `${asks}${askedUsually ? ' as usual' : ', which is not the usual'}; ${writes}${writtenUsually ? ' as usual' : ', which is not the usual'}`;
}
