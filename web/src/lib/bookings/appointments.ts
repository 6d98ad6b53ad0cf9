import type { Schemas } from '$lib/api/client';

type Row = Schemas['BookingRow'];

/** One appointment of the list: a booking, or a session with everybody who comes to it. */
export interface Appointment {
  /** The first of its bookings, for all that they have in common. */
  row: Row;
  rows: Row[];
  /** Whether it is a session that several share, or could. */
  isShared: boolean;
  /** How many people come. */
  coming: number;
}

/** Bookings of one session stand together, as they come; what is cancelled stands alone. */
export function appointmentsOf(rows: readonly Row[]): Appointment[] {
  const appointments: Appointment[] = [];
  for (const row of rows) {
    const last = appointments.at(-1);
    if (last && row.cancelledAt === null && last.row.sessionId === row.sessionId && last.row.cancelledAt === null) {
      last.rows.push(row);
      last.coming += row.party;
      last.isShared = true;
    } else
      appointments.push({
        row,
        rows: [row],
        isShared: row.places > 1 && row.cancelledAt === null,
        coming: row.party,
      });
  }
  return appointments;
}

/** How full a session is, in words. */
export function fullness({ row, coming }: Pick<Appointment, 'row' | 'coming'>): string {
  return row.places > 1 ? `${coming} of ${row.places} places taken` : `${coming} people`;
}
