import type { Schemas } from '$lib/api/client';
import { cityOf } from '$lib/time/clock';
import { dateIn, dayMonth, lengthOf, shortDate, timeOf } from '$lib/time/format';
import { Temporal } from 'temporal-polyfill';

type Row = Schemas['LinkRow'];

export const states: Record<Schemas['LinkState'], string> = {
  draft: 'draft',
  out: 'out',
  opened: 'opened',
  booked: 'booked',
  ended: 'ended',
  revoked: 'revoked',
};

/** What speaks for a suggested time, in a few words. */
export function whyWords(suggestion: Schemas['LinkSuggestion'], nameOf: (host: string) => string): string {
  const [first] = suggestion.why.filter((why) => why !== 'decentHours' || suggestion.why.length === 1);
  switch (first) {
    case 'nextToOthers':
      return suggestion.host === null
        ? 'next to something else'
        : `next to something of ${nameOf(suggestion.host).split(' ')[0] ?? ''}’s`;
    case 'noCrumbs':
      return 'leaves no gap';
    case 'decentHours':
      return 'within the day everywhere';
    case 'soon':
      return 'soon';
    case 'anotherDay':
      return 'another day';
    default:
      return 'another half of the day';
  }
}

/** "Tue, 8 Dec, 9:15". */
export function dayAndTime(start: string, zone: string): string {
  return `${shortDate(dateIn(start, zone))}, ${timeOf(start, zone)}`;
}

/** A painted stretch by the clock on the wall: "Tue, 8 Dec, 9:00 – 11:30". */
export function paintedWords(paint: Schemas['PaintedTime']): string {
  const start = Temporal.PlainDateTime.from(paint.start);
  const read = (local: Temporal.PlainDateTime): string => timeOf(local.toZonedDateTime('UTC').toInstant(), 'UTC');
  return `${shortDate(start.toPlainDate().toString())}, ${read(start)} – ${read(start.add({ minutes: paint.minutes }))}`;
}

/** How long ago something was: "3 days", "5 h", "just now". */
export function ago(since: string, now: string): string {
  const minutes = Math.max(
    0,
    Math.round(
      (Temporal.Instant.from(now).epochMilliseconds - Temporal.Instant.from(since).epochMilliseconds) / 60_000,
    ),
  );
  if (minutes < 60) return minutes < 2 ? 'just now' : `${minutes} min`;
  const hours = Math.round(minutes / 60);
  if (hours < 48) return `${hours} h`;
  return `${Math.round(hours / 24)} days`;
}

/** For how long a guest is waited for; empty where nobody is. */
export function waiting(row: Pick<Row, 'waitsSince' | 'askedAgain'>, now: string): string {
  if (row.waitsSince === null) return '';
  const [since, isAsked] = [ago(row.waitsSince, now), row.askedAgain > 0];
  if (since === 'just now') return isAsked ? 'asked again just now' : 'sent just now';
  return `waits for ${since}${isAsked ? `, asked again ${row.askedAgain === 1 ? 'once' : `${row.askedAgain} times`}` : ''}`;
}

/** How a booking ended, in words. */
export const endings: Record<Schemas['CancelledBy'], string> = {
  guest: 'cancelled by the guest',
  team: 'cancelled by your team',
  declined: 'declined',
  lapsed: 'lapsed',
};

/** Who cancelled what was booked by a link last; undefined where nothing was, or something stands. */
function cancelled(row: Pick<Row, 'bookings'>): string | undefined {
  const by = row.bookings.some((booking) => booking.cancelledBy === null) ? null : row.bookings.at(-1)?.cancelledBy;
  return by ? endings[by] : undefined;
}

/** What has become of a link, in one line. */
export function standing(row: Row, now: string, zone: string): string {
  const stands = row.bookings.filter((booking) => booking.cancelledBy === null);
  switch (row.state) {
    case 'draft':
      return row.givenAt === null
        ? 'not sent yet'
        : `times copied${ago(row.givenAt, now) === 'just now' ? ' just now' : ` ${ago(row.givenAt, now)} ago`}; its web address is not out`;
    case 'revoked':
      return 'withdrawn';
    case 'ended':
      return `ended ${dayMonth(row.endsOn)}, ${cancelled(row) ?? 'nobody booked'}`;
    case 'booked':
      return [...new Set(stands.map((booking) => dayAndTime(booking.start, zone)))].join('; ');
    default: {
      const opened =
        row.opened === 0 || row.lastOpenedAt === null
          ? 'not opened yet'
          : `opened ${row.opened === 1 ? 'once' : `${row.opened} times`}, last ${ago(row.lastOpenedAt, now) === 'just now' ? 'just now' : `${ago(row.lastOpenedAt, now)} ago`}`;
      if (row.suits > 0) return row.suits === 1 ? 'the guest said what suits' : `${row.suits} guests said what suits`;
      const before = cancelled(row);
      return (row.noneLeft ? `nothing left, ${opened}` : opened) + (before === undefined ? '' : `; ${before}`);
    }
  }
}

/** What a link offers, to whom and with whom, in one line. */
export function offerInWords(form: Schemas['LinkForm'], nameOf: (host: string) => string): string {
  const ways = {
    picked: 'times that are picked',
    painted: 'free time in what is painted',
    free: 'any free time',
    asked: form.details.booksByItself ? 'what suits the guest, booked by itself' : 'what suits the guest',
  };
  const guests = form.guests.map((guest) => guest.name.trim()).filter((name) => name !== '');
  const { offer, durations, lineUp } = form.times;
  const together = guests.length > 1 ? (form.details.together ? ', all at one time' : ', each their own time') : '';
  return [
    `With ${lineUp.map((seat) => seat.hostIds.map(nameOf).join(' or ')).join(', ')}: ${form.title.trim()}`,
    form.details.isAmongOurselves
      ? 'among ourselves'
      : guests.length > 0
        ? `for ${guests.join(', ')}${form.guestZone ? ` in ${cityOf(form.guestZone)}` : ''}${together}`
        : 'for whoever has the link',
    `${ways[offer.by]}, ${durations.map(lengthOf).join(' or ')}`,
    `${!offer.from ? '' : `from ${dayMonth(offer.from)} `}until ${dayMonth(offer.until)}`,
  ].join('; ');
}
