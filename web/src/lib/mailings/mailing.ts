import type { Schemas } from '$lib/api/client';
import { counted } from '$lib/time/format';

export type MailingGuest = Schemas['MailingGuest'];

/** Those of a list, and those who are added; whoever is there already by the same email stays as they are. */
export function withAdded(list: readonly MailingGuest[], added: readonly MailingGuest[]): MailingGuest[] {
  const all = [...list];
  const known = new Set(list.map((one) => keyOf(one.email)));
  for (const one of added) {
    if (known.has(keyOf(one.email))) continue;
    known.add(keyOf(one.email));
    all.push(one);
  }
  return all;
}

const keyOf = (email: string): string => email.trim().toLowerCase();

/** How many times there are for how many people, and whether that is enough. */
export function supplyInWords(preview: Schemas['MailingPreview']): string {
  const people = preview.letters.length;
  const { openings, room } = preview;
  if (openings === null) return `${counted(people, 'person is', 'people are')} asked for their times first.`;
  const said = `${counted(openings, 'opening', 'openings')} for ${counted(people, 'person', 'people')}.`;
  if (room === null || room >= people || openings === 0) return said;
  return openings > room
    ? `${said} They overlap: ${String(room)} of ${String(people)} people can book.`
    : `${said} Whoever is late finds none.`;
}

/** What keeps it from being sent, in words; undefined where nothing does. */
export function obstacleOf(preview: Schemas['MailingPreview'], offer: Schemas['LetterOffer']): string | undefined {
  if (offer.kind === 'nothing') return 'Choose an offer.';
  const without = preview.letters.filter((letter) => letter.unfilled.length > 0);
  if (without.length > 0) {
    const blanks = [...new Set(without.flatMap((letter) => letter.unfilled))].map((name) => `{{ ${name} }}`);
    return `Nothing is known for ${blanks.join(', ')} of ${counted(without.length, 'guest', 'guests')}. Write other words to them, or take them off the list.`;
  }
  return preview.letters.some((letter) => letter.openings === 0) ? 'Nothing of this offer is open.' : undefined;
}

/** How its guests stand, in one line. */
export function standingInWords(row: Schemas['MailingRow']): string {
  const parts: [number, string][] = [
    [row.booked, 'booked'],
    [row.answered, 'answered'],
    [row.silent, 'silent'],
    [row.failed, 'not delivered'],
    [row.over, 'over'],
  ];
  return [
    `${String(row.sent)} sent`,
    ...parts
      .filter(([count, name]) => count > 0 || name === 'booked')
      .map(([count, name]) => `${String(count)} ${name}`),
    ...(row.timesLeft === null ? [] : [`${timesLeft(row.timesLeft)} left`]),
  ].join(', ');
}

/** The server counts no further. */
const MOST_LEFT = 20;
const timesLeft = (count: number): string =>
  count >= MOST_LEFT ? `${String(MOST_LEFT)} times or more` : counted(count, 'time', 'times');

/** How one of them stands, in words. */
export const standings: Record<Schemas['MailingStanding'], string> = {
  unopened: 'Silent, not opened',
  opened: 'Silent, opened',
  answered: 'Answered',
  booked: 'Booked',
  over: 'Over',
  failed: 'Not delivered',
};
