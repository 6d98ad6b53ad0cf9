import type { Schemas } from '$lib/api/client';
import { counted } from '$lib/time/format';

/** How much somebody has around a booking that they could take. */
export function loadInWords({
  onDay,
  inWeek,
  isOfPage,
}: Pick<Schemas['Taker'], 'onDay' | 'inWeek' | 'isOfPage'>): string {
  const week = `${counted(inWeek, 'booking', 'bookings')} that week`;
  const load = onDay > 0 ? `${week}, ${String(onDay)} that day` : week;
  return isOfPage ? load : `${load}; not on this page`;
}
