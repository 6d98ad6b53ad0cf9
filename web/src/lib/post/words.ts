import type { Schemas } from '$lib/api/client';
import { dateIn, dayMonth, timeOf } from '$lib/time/format';

export const kinds: Record<Schemas['MessageKind'], string> = {
  bookedForGuest: 'invitation',
  bookedForHost: 'to a host: booked',
  hostChangedForGuest: 'another host',
  roomForGuest: 'video room',
  movedForGuest: 'moved',
  movedForHost: 'to a host: moved',
  cancelledForGuest: 'cancelled',
  cancelledForHost: 'to a host: cancelled',
  givenAwayForHost: 'to a host: reassigned',
  bookedForCompanion: 'to a companion',
  cancelledForCompanion: 'to a companion: cancelled',
  reminderForGuest: 'reminder',
  reminderForHost: 'to a host: reminder',
  askedForGuest: 'asked for',
  askedForHost: 'to a host: needs an answer',
  declinedForGuest: 'declined',
  lapsedForGuest: 'lapsed',
  declinedForHost: 'to a host: declined',
  lapsedForHost: 'to a host: lapsed',
  repliedForHost: 'to a host: the guest answered',
  linkForGuest: 'times of a link',
  linkAgainForGuest: 'times of a link, again',
  noneLeftForMaker: 'no times left on a link',
  wishForMaker: 'asks for other times',
  passwordReset: 'a new password',
  joinInvitation: 'invitation to join',
  codeForGuest: 'code',
  daily: 'daily mail',
};

/** What has become of a message, in words. */
export function stateInWords(row: Schemas['PostRow'], zone: string): string {
  const at = `${dayMonth(dateIn(row.at, zone))}, ${timeOf(row.at, zone)}`;
  if (row.state === 'sent') return `sent ${at}`;
  if (row.state === 'gathered') return `in the mail of the day, ${at}`;
  if (row.state === 'failed') return `not delivered: ${row.fault ?? ''}`;
  return row.attempts === 0
    ? `due ${at}`
    : `tried ${row.attempts === 1 ? 'once' : `${row.attempts} times`}, again ${at}: ${row.fault ?? ''}`;
}
