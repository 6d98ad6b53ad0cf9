import { ownZone } from '$lib/time/clock';
import type { GuestPageState } from './GuestPageState.svelte';

const TWO_DAYS = 2 * 86_400_000;

/** Marks what a calendar of the guest's own has taken. It is read in this browser and sent nowhere. */
export async function takeCalendar(guest: GuestPageState, file: File): Promise<void> {
  try {
    // Loaded only here: few guests have a calendar at hand.
    const { readCalendar } = await import('./ownCalendar');
    const last = Date.parse(guest.page.lastDate) + TWO_DAYS;
    guest.taken = await readCalendar(await file.text(), guest.now, last, ownZone());
    guest.calendarNote = { isRead: true, count: guest.taken.length };
  } catch {
    guest.calendarNote = { isRead: false, count: 0 };
  }
}
