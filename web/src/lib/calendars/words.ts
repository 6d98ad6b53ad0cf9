import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';
import { counted, dateIn, dayMonth, timeOf } from '$lib/time/format';

type Calendar = Schemas['CalendarView'];

/** "8 Dec at 09:00", and "09:00" alone on the day it is. */
export function momentOf(instant: string, now: string, zone: string): string {
  const [date, today] = [dateIn(instant, zone), dateIn(now, zone)];
  return date === today ? timeOf(instant, zone) : `${dayMonth(date)} at ${timeOf(instant, zone)}`;
}

/** How long ago something was, roughly: "just now", "40 s ago", "3 min ago", "2 h ago". */
export function agoOf(instant: string, now: string): string {
  const seconds = Math.round(Temporal.Instant.from(instant).until(now).total('seconds'));
  if (seconds < 15) return 'just now';
  if (seconds < 90) return `${seconds} s ago`;
  if (seconds < 90 * 60) return `${Math.round(seconds / 60)} min ago`;
  if (seconds < 36 * 3600) return `${Math.round(seconds / 3600)} h ago`;
  return `${Math.round(seconds / 86_400)} days ago`;
}

/** Where a calendar comes from, and how fresh it is. */
export function sourceOf(calendar: Calendar, now: string, zone: string): string {
  const entries =
    calendar.kind === 'builtIn' && calendar.entries === 0
      ? 'no entries yet'
      : counted(calendar.entries, 'entry', 'entries');
  switch (calendar.kind) {
    case 'file':
      return `file ${calendar.source}, loaded ${momentOf(calendar.loadedAt, now, zone)}, ${entries}`;
    case 'builtIn':
      return `everybody has one here, ${entries}`;
    default:
      return `${calendar.kind === 'account' ? 'account' : 'address'} at ${calendar.source}, ${entries}, looked at ${agoOf(calendar.lookedAt, now)}${refreshOf(calendar)}`;
  }
}

function refreshOf(calendar: Calendar): string {
  const seconds = calendar.refreshSeconds ?? 0;
  if (seconds <= 60) return '';
  return `, every ${seconds < 5400 ? counted(Math.round(seconds / 60), 'minute', 'minutes') : counted(Math.round(seconds / 3600), 'hour', 'hours')}, as its publisher asks`;
}

/** What it means that a calendar can't be reached. */
export function outOfReach(calendar: Calendar, now: string, zone: string): string {
  if (calendar.unreachableSince === null) return '';
  const since = `Out of reach since ${momentOf(calendar.unreachableSince, now, zone)}.`;
  const fault = calendar.fault ? ` ${calendar.fault}` : '';
  if (!calendar.isAsked) return `${since}${fault} It isn’t used, so nothing depends on it.`;
  const closes = calendar.closesAt ?? now;
  return closes <= now
    ? `${since}${fault} Its last known events are too old, so its openings are closed until it can be reached.`
    : `${since}${fault} Its last known events count until ${momentOf(closes, now, zone)}; then its openings close. We keep trying.`;
}
