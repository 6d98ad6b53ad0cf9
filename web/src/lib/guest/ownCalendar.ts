import { Temporal } from 'temporal-polyfill';
import type { Taken } from './taken';

/**
 * Reads a calendar file (RFC 5545) in the browser: what its events take between two instants. Events marked as free,
 * and cancelled ones, take nothing. Times without a zone, and whole days, are those of `zone`. The reader is loaded
 * only here.
 */
export async function readCalendar(text: string, from: number, to: number, zone: string): Promise<Taken[]> {
  const { default: ICAL } = await import('ical.js');
  const root = new ICAL.Component(ICAL.parse(text));
  const calendars = root.name === 'vcalendar' ? [root] : root.getAllSubcomponents('vcalendar');
  const taken: Taken[] = [];
  for (const calendar of calendars) {
    for (const definition of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(definition);
    for (const component of calendar.getAllSubcomponents('vevent')) {
      const event = new ICAL.Event(component, { exceptions: exceptionsOf(ICAL, calendar, component) });
      // One of a series counts with the series; where that is not in the file, by itself.
      if (event.isRecurrenceException() && hasSeries(calendar, component)) continue;
      for (const [start, end] of occurrences(event, from, to, zone))
        taken.push({ from: start, to: end, title: event.summary ?? '' });
    }
  }
  return taken.sort((one, other) => one.from - other.from);
}

type Reader = typeof import('ical.js').default;
type Component = InstanceType<Reader['Component']>;
type Time = InstanceType<Reader['Time']>;

function exceptionsOf(ICAL: Reader, calendar: Component, of: Component): Component[] {
  const uid = of.getFirstPropertyValue('uid');
  return calendar
    .getAllSubcomponents('vevent')
    .filter(
      (other) => other !== of && other.getFirstPropertyValue('uid') === uid && other.hasProperty('recurrence-id'),
    );
}

function hasSeries(calendar: Component, of: Component): boolean {
  const uid = of.getFirstPropertyValue('uid');
  return calendar
    .getAllSubcomponents('vevent')
    .some((other) => other.getFirstPropertyValue('uid') === uid && !other.hasProperty('recurrence-id'));
}

function takesTime(component: Component): boolean {
  return (
    component.getFirstPropertyValue('transp') !== 'TRANSPARENT' &&
    component.getFirstPropertyValue('status') !== 'CANCELLED'
  );
}

// Every day for half a century; a rule that repeats every second would never come to an end.
const MOST_OCCURRENCES = 20_000;
// Further than any two zones are apart.
const FAR = 2 * 86_400_000;

function* occurrences(
  event: InstanceType<Reader['Event']>,
  from: number,
  to: number,
  zone: string,
): Generator<[number, number]> {
  if (!event.isRecurring()) {
    const span = spanOf(event.component, event.startDate, event.endDate, zone);
    if (span[0] < to && from < span[1] && takesTime(event.component)) yield span;
    return;
  }
  const lasts = event.duration.toSeconds() * 1000;
  const iterator = event.iterator();
  for (let count = 0; count < MOST_OCCURRENCES; count++) {
    const next = iterator.next() as Time | null;
    if (!next) return;
    // What lies days away needs no zones to be told so. One that was moved beyond the end does not end the series.
    const about = Date.UTC(next.year, next.month - 1, next.day);
    if (about > to + FAR) return;
    if (about < from - FAR - lasts && !(next.toString() in event.exceptions)) continue;
    const details = event.getOccurrenceDetails(next);
    const span = spanOf(details.item.component, details.startDate, details.endDate, zone);
    if (span[0] < to && from < span[1] && takesTime(details.item.component)) yield span;
  }
}

function spanOf(component: Component, start: Time, end: Time, own: string): [number, number] {
  // A zone that the file names and does not define is told by the parameter alone.
  const named = component.getFirstProperty('dtstart')?.getFirstParameter('tzid');
  return [instantOf(start, named, own), instantOf(end, named, own)];
}

/** By the zone's rules of today where the browser knows it by name, else as the file defines it. */
function instantOf(time: Time, named: string | undefined, own: string): number {
  const tzid = time.zone?.tzid === 'UTC' ? 'UTC' : named;
  if (!time.isDate && tzid !== undefined && !isKnown(tzid)) return time.toJSDate().getTime();
  const zone = time.isDate || tzid === undefined ? own : tzid;
  const plain = Temporal.PlainDateTime.from({
    year: time.year,
    month: time.month,
    day: time.day,
    hour: time.hour,
    minute: time.minute,
    second: time.second,
  });
  return plain.toZonedDateTime(zone).epochMilliseconds;
}

function isKnown(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}
