import type { Schemas } from '$lib/api/client';

export type GuestEvent = Schemas['GuestEvent'];

const sources: Record<Schemas['GuestSource'], string> = {
  booking: 'First booked',
  link: 'Added with their first link',
  hand: 'Added by the team',
  import: 'Imported',
};

const replies: Record<Schemas['GuestReply'], string> = {
  none: 'Took their answer back',
  accepted: 'Accepted the invitation',
  tentative: 'Accepted the invitation tentatively',
  declined: 'Declined the invitation',
};

const ends: Record<Schemas['CancelledBy'], string> = {
  guest: 'Cancelled by the guest',
  team: 'Cancelled by the team',
  declined: 'Declined by the team',
  lapsed: 'Lapsed: nobody answered in time',
};

const mails: Record<Schemas['MessageState'], string> = {
  due: 'Mail is about to go out',
  sent: 'Mail sent',
  gathered: 'Mail waits for the day’s mail',
  failed: 'Mail not delivered',
};

/** What happened, without when, who and about what, which stand beside it. */
export function happened(event: GuestEvent): string {
  switch (event.kind) {
    case 'known':
      return isSource(event.text) ? sources[event.text] : 'Added';
    case 'noted':
      return 'Note';
    case 'offerMade':
      return 'Link made';
    case 'offerOut':
      return 'Link sent out';
    case 'offerOpened':
      return 'Link opened';
    case 'offerRevoked':
      return 'Link revoked';
    case 'wished':
      return 'Asked for another time';
    case 'suited':
      return 'Said which times suit';
    case 'booked':
      return event.for === '' ? 'Booked' : `Booked for ${event.for}`;
    case 'moved':
      return event.by === '' ? 'Moved by the guest' : 'Moved by the team';
    case 'cancelled':
      return event.cancelledBy ? ends[event.cancelledBy] : 'Cancelled';
    case 'answered':
      return event.reply ? replies[event.reply] : 'Answered';
    case 'mailOut':
      return mails[event.state ?? 'sent'];
    case 'mailIn':
      return 'Wrote back';
    case 'merged':
      return `Merged with ${event.title}`;
  }
}

function isSource(text: string): text is Schemas['GuestSource'] {
  return text in sources;
}

/** Where what it is about can be looked at; undefined where that is nowhere else. */
export function wayTo(event: GuestEvent): string | undefined {
  if (event.id === null) return undefined;
  switch (event.kind) {
    case 'offerMade':
    case 'offerOut':
    case 'offerOpened':
    case 'offerRevoked':
    case 'wished':
    case 'suited':
      return `/work/links/${event.id}`;
    case 'booked':
    case 'moved':
    case 'cancelled':
    case 'answered':
      return `/work/bookings/${event.id}`;
    case 'mailIn':
      return event.id ? `/work/bookings/${event.id}` : undefined;
    case 'mailOut':
      return `/work/post?message=${event.id}`;
    default:
      return undefined;
  }
}
