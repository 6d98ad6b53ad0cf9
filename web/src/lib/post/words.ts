import type { Schemas } from '$lib/api/client';
import { dateIn, dayMonth, timeOf } from '$lib/time/format';

export const kinds: Record<Schemas['MessageKind'], string> = {
  bookedForGuest: 'invitation',
  bookedForHost: 'to the team: booked',
  hostChangedForGuest: 'another host',
  roomForGuest: 'video room',
  movedForGuest: 'moved',
  movedForHost: 'to the team: moved',
  cancelledForGuest: 'cancelled',
  cancelledForHost: 'to the team: cancelled',
  givenAwayForHost: 'to the team: reassigned',
  bookedForCompanion: 'to a companion',
  cancelledForCompanion: 'to a companion: cancelled',
  wordsForGuest: 'words to all who come',
  coverForGuest: 'who comes instead, or new times',
  reminderForGuest: 'reminder',
  reminderForHost: 'to the team: reminder',
  askedForGuest: 'requested',
  askedForHost: 'to the team: needs an answer',
  declinedForGuest: 'declined',
  lapsedForGuest: 'lapsed',
  declinedForHost: 'to the team: declined',
  lapsedForHost: 'to the team: lapsed',
  repliedForHost: 'to the team: the guest answered',
  repliedForSender: 'to the team: a letter was answered',
  linkForGuest: 'times of a link',
  letterForGuest: 'letter',
  linkAgainForGuest: 'times of a link, again',
  noneLeftForMaker: 'no times left on a link',
  wishForMaker: 'asks for other times',
  suitsForMaker: 'says which times suit',
  passwordReset: 'a new password',
  joinInvitation: 'invitation to join',
  proveAddress: 'proof of an address',
  signUp: 'a new workspace',
  signUpKnown: 'a sign-in that is there already',
  codeForGuest: 'code',
  daily: 'daily mail',
};

/** Why a message that is due is not sent yet, and when it is looked at again. */
const held: Record<Schemas['MessageHold'], (at: string) => string> = {
  unproven: () => 'waits until an owner shows that their address is theirs',
  firstDay: (at) => `waits until ${at}: a new workspace mails few strangers an hour on its first day`,
  oftenToOne: (at) => `waits until ${at}: its reader had such a mail within the hour`,
};

/** What has become of a message, in words. */
export function stateInWords(row: Schemas['PostRow'], zone: string): string {
  const at = `${dayMonth(dateIn(row.at, zone))}, ${timeOf(row.at, zone)}`;
  if (row.state === 'sent') return `sent ${at}`;
  if (row.state === 'gathered') return `in the mail of the day, ${at}`;
  if (row.state === 'failed') return `not delivered: ${row.fault ?? ''}`;
  if (row.heldBack) return held[row.heldBack](at);
  return row.attempts === 0
    ? `due ${at}`
    : `tried ${row.attempts === 1 ? 'once' : `${row.attempts} times`}, again ${at}: ${row.fault ?? ''}`;
}
