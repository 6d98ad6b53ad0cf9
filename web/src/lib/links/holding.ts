import { Temporal } from 'temporal-polyfill';

/**
 * Until when picked times are held unless something else is said: until the last of them begins, or the link ends, if
 * that is sooner.
 * @param endsOn The last local date of the link.
 * @returns A local time of the zone, to the minute.
 */
export function untilOf(picked: readonly string[], endsOn: string, zone: string, now: string): string {
  const end = Temporal.PlainDate.from(endsOn).add({ days: 1 }).toZonedDateTime(zone).toInstant();
  const last = picked
    .map((start) => Temporal.Instant.from(start))
    .filter((start) => Temporal.Instant.compare(start, Temporal.Instant.from(now)) > 0)
    .reduce((one, other) => (Temporal.Instant.compare(one, other) < 0 ? other : one), Temporal.Instant.from(now));
  const until = picked.length === 0 || Temporal.Instant.compare(end, last) < 0 ? end : last;
  return until.toZonedDateTimeISO(zone).toPlainDateTime().toString({ smallestUnit: 'minute' });
}
