import { Temporal } from 'temporal-polyfill';
import { zoneAt } from './offsets';

/**
 * The server's time, going on from an answer's `now`: what is "today" or "passed" never hangs on this machine's clock.
 */
export class ServerClock {
  readonly #at: Temporal.Instant;
  readonly #since = performance.now();

  constructor(now: string) {
    this.#at = Temporal.Instant.from(now);
  }

  now(): Temporal.Instant {
    return this.#at.add({ milliseconds: Math.round(performance.now() - this.#since) });
  }
}

/** The zone this browser is set to. */
export function ownZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
}

/** Europe/Copenhagen as "Copenhagen". */
export function cityOf(zone: string): string {
  return (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');
}

/** Whether two zones show the same wall clock at an instant. */
export function sameClock(a: string, b: string, at: Temporal.Instant): boolean {
  const ahead = (zone: string): number => at.toZonedDateTimeISO(zoneAt(at, zone)).offsetNanoseconds;
  return a === b || ahead(a) === ahead(b);
}
