import type { Schemas } from '$lib/api/client';
import { dateIn, dayMonth, timeOf } from '$lib/time/format';

export const kinds: Record<Schemas['MessageKind'], string> = {
  bookedForGuest: 'invitation',
  bookedForHost: 'to a host: booked',
  hostChangedForGuest: 'another host',
  movedForGuest: 'moved',
  movedForHost: 'to a host: moved',
  cancelledForGuest: 'cancelled',
  cancelledForHost: 'to a host: cancelled',
};

/** What has become of a message, in words. */
export function stateInWords(row: Schemas['PostRow'], zone: string): string {
  const at = `${dayMonth(dateIn(row.at, zone))}, ${timeOf(row.at, zone)}`;
  if (row.state === 'sent') return `sent ${at}`;
  if (row.state === 'failed') return `not delivered: ${row.fault ?? ''}`;
  return row.attempts === 0 ? `due ${at}` : `tried ${row.attempts === 1 ? 'once' : `${row.attempts} times`}, again ${at}: ${row.fault ?? ''}`;
}
