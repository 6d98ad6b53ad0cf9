import { minutesAt, type Moment } from './offsets';

/**
 * The server's time, going on from an answer's `now`: what is "today" or "passed" never hangs on this machine's clock.
 */
export class ServerClock {
  readonly #at: number;
  readonly #since = performance.now();

  constructor(now: string) {
    this.#at = Date.parse(now);
  }

  /** Milliseconds since 1970 in UTC. */
  now(): number {
    return this.#at + Math.round(performance.now() - this.#since);
  }
}

/** The zone this browser is set to. */
export function ownZone(): string {
  // What is newer answers at once; what is older has the browser load its tables of languages first.
  const now = (globalThis as { Temporal?: { Now: { timeZoneId: () => string } } }).Temporal?.Now;
  return now?.timeZoneId() ?? Intl.DateTimeFormat().resolvedOptions().timeZone ?? 'UTC';
}

/** Europe/Copenhagen as "Copenhagen". */
export function cityOf(zone: string): string {
  return (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');
}

/** Whether two zones show the same wall clock at an instant. */
export function sameClock(a: string, b: string, at: Moment): boolean {
  return a === b || minutesAt(at, a) === minutesAt(at, b);
}
