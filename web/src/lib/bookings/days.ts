import type { Schemas } from '$lib/api/client';
import { dateIn } from '$lib/time/format';
import { appointmentsOf, type Appointment } from './appointments';
import { needsAnswer } from './reply';

/** Appointments of the list that stand together. */
export interface DayOfList {
  /** Of its own, however often a day comes: what is still on its way may stand in another order. */
  key: string;
  /** Empty where they are not told apart by day. */
  date: string;
  /** Whether they wait for an answer, and stand before all others. */
  waits: boolean;
  appointments: Appointment[];
}

/** So many rows come and go together where they are not told apart by day. */
const TOGETHER = 30;

/**
 * The rows of a list, in their order, by day.
 *
 * @param waitsFirst Whether what waits for an answer stands first, and its days are told apart from all others.
 */
export function byDays(rows: readonly Schemas['BookingRow'][], zone: string, waitsFirst: boolean): DayOfList[] {
  const days: DayOfList[] = [];
  const times = new Map<string, number>();
  for (const appointment of appointmentsOf(rows)) {
    const date = dateIn(appointment.row.start, zone);
    const waits = waitsFirst && appointment.rows.some(needsAnswer);
    const day = days.at(-1);
    if (day?.date === date && day.waits === waits) {
      day.appointments.push(appointment);
      continue;
    }
    const name = `${date}${waits ? ' waits' : ''}`;
    const time = (times.get(name) ?? 0) + 1;
    times.set(name, time);
    days.push({ key: time === 1 ? name : `${name} ${String(time)}`, date, waits, appointments: [appointment] });
  }
  return days;
}

/** The same in an order that is not that of time. */
export function inOrder(rows: readonly Schemas['BookingRow'][]): DayOfList[] {
  const appointments = appointmentsOf(rows);
  return Array.from({ length: Math.ceil(appointments.length / TOGETHER) }, (_, at) => ({
    key: String(at),
    date: '',
    waits: false,
    appointments: appointments.slice(at * TOGETHER, (at + 1) * TOGETHER),
  }));
}
