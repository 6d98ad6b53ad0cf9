import { Temporal } from 'temporal-polyfill';

/** Times as they are typed (YYYY-MM-DDTHH:MM, of the zone's clock) as instants in UTC. */
export function startsOf(typed: readonly string[], zone: string): string[] {
  return typed.map((time) =>
    Temporal.PlainDateTime.from(time).toZonedDateTime(zone).toInstant().toString({ smallestUnit: 'second' }),
  );
}
