import type { Schemas } from '$lib/api/client';
import { counted } from '$lib/time/format';

/** What erasing a guest does, a line for each thing there is. */
export function whatGoes(look: Schemas['ErasingView']): string[] {
  const lines = ['Everything known about this guest is deleted.'];
  if (look.notes > 0) lines.push(`${counted(look.notes, 'note is', 'notes are')} deleted.`);
  if (look.bookings > 0)
    lines.push(
      `${counted(look.bookings, 'booking stays', 'bookings stay')}, without name, email, answers or people brought along; also in your hosts’ calendars.`,
    );
  if (look.links > 0) lines.push(`${counted(look.links, 'link stays', 'links stay')}, without name or email.`);
  if (look.mails > 0) lines.push(`${counted(look.mails, 'email is', 'emails are')} deleted.`);
  if (look.waiting > 0)
    lines.push(
      look.waiting === 1
        ? 'One of them has not been sent yet, and won’t be.'
        : `${look.waiting} of them have not been sent yet, and won’t be.`,
    );
  return lines;
}

type Rules = Schemas['GuestRetention'];

/** A row of the form in which it is said how long guests are kept: months as typed, empty for ever. */
export interface RetentionRow {
  /** A kind of page, '' for none; null for guests who never booked. */
  kind: string | null;
  months: string;
}

export function rowsOf(rules: Rules, kinds: readonly string[]): RetentionRow[] {
  const months = (kind: string): string => String(rules.kinds.find((one) => one.kind === kind)?.months ?? '');
  return [
    ...kinds.filter((kind) => kind !== '').map((kind) => ({ kind, months: months(kind) })),
    { kind: '', months: months('') },
    { kind: null, months: String(rules.withoutBooking ?? '') },
  ];
}

/** What cannot be a number is sent as 0, which the server refuses by its field. */
const asMonths = (typed: string): number => (/^\d{1,4}$/.test(typed.trim()) ? Number(typed.trim()) : 0);

export function rulesOf(rows: readonly RetentionRow[]): Rules {
  const filled = rows.filter((row) => row.months.trim() !== '');
  const without = filled.find((row) => row.kind === null);
  return {
    kinds: filled.flatMap(({ kind, months }) => (kind === null ? [] : [{ kind, months: asMonths(months) }])),
    withoutBooking: without ? asMonths(without.months) : null,
  };
}

/** The field that a row's fault is named by. */
export function fieldOf(rows: readonly RetentionRow[], row: RetentionRow): string {
  if (row.kind === null) return 'withoutBooking';
  const filled = rows.filter((one) => one.kind !== null && one.months.trim() !== '');
  return `kinds[${filled.indexOf(row)}].months`;
}
