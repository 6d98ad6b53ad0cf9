import type { Schemas } from '$lib/api/client';
import { dateIn, dayName, timeOf } from '$lib/time/format';

type Row = Schemas['BookingRow'];

/** What a booking's guest answered to the invitation, in words; empty where nothing came. */
export function replyInWords(row: Pick<Row, 'reply' | 'wishStart'>, zone: string): string {
  if (row.wishStart) return `asks for ${dayName(dateIn(row.wishStart, zone))}, ${timeOf(row.wishStart, zone)} instead`;
  if (row.reply === 'accepted') return 'accepted the invitation';
  if (row.reply === 'tentative') return 'may come';
  return row.reply === 'declined' ? 'declined the invitation' : '';
}

/** Whether somebody of the team has something to answer or to mend. */
export function needsAnswer(row: Pick<Row, 'reply' | 'wishStart' | 'waitsUntil' | 'outside' | 'cancelledAt'>): boolean {
  return (
    !row.cancelledAt &&
    (row.waitsUntil !== null || row.wishStart !== null || row.reply === 'declined' || row.outside.length > 0)
  );
}

/** What became of a booking that ended, in words. */
export function endInWords(row: Pick<Row, 'cancelledBy' | 'cancelWord'>): string {
  const ends = {
    guest: 'cancelled by the guest',
    team: 'cancelled by your team',
    declined: 'declined',
    lapsed: 'lapsed: nobody answered in time',
  };
  const end = row.cancelledBy ? ends[row.cancelledBy] : '';
  return row.cancelWord === '' ? end : `${end}: ${row.cancelWord}`;
}

export const meanings: Record<Schemas['MailMeaning'], string> = {
  accepts: 'accepts',
  acceptsTentatively: 'may come',
  declines: 'declines',
  wishes: 'asks for another time',
  words: 'writes',
};
