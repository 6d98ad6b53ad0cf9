import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';

type Run = Schemas['OffsetFrom'];

/** Of the zones that the server told of, its runs, where this browser's own tables say otherwise of one of them. */
const told = new Map<string, readonly Run[]>();

const MINUTE = 60_000_000_000;

function browsersMinutes(at: string, zone: string): number | undefined {
  try {
    return Temporal.Instant.from(at).toZonedDateTimeISO(zone).offsetNanoseconds / MINUTE;
  } catch {
    return undefined;
  }
}

/** Takes the server's word for how far clocks are ahead: the mails about what is shown here go by it. */
export function learnOffsets(offsets: readonly Schemas['ZoneOffsets'][]): void {
  for (const { zone, runs } of offsets) {
    if (runs.some((run) => browsersMinutes(run.from, zone) !== run.minutes)) told.set(zone, runs);
    else told.delete(zone);
  }
}

/**
 * The zone to show an instant in: the same one, or where this browser has other tables than the server, the offset that
 * the server has then ("+01:00").
 */
export function zoneAt(at: string | Temporal.Instant, zone: string): string {
  const runs = told.get(zone);
  if (!runs) return zone;
  const when = Temporal.Instant.from(at.toString());
  const run = runs.findLast((one) => Temporal.Instant.compare(Temporal.Instant.from(one.from), when) <= 0);
  // Beyond what was told the browser's own tables are as good as any.
  if (!run) return zone;
  const [hours, minutes] = [Math.floor(Math.abs(run.minutes) / 60), Math.abs(run.minutes) % 60];
  const two = (number: number): string => String(number).padStart(2, '0');
  return `${run.minutes < 0 ? '-' : '+'}${two(hours)}:${two(minutes)}`;
}

/** A moment as a formatter takes it: not every browser knows zones by their offset. */
export function wallClock(at: string | Temporal.Instant, zone: string): { date: Date; timeZone: string } {
  const shown = zoneAt(at, zone);
  if (shown === zone) return { date: new Date(at.toString()), timeZone: zone };
  const wall = Temporal.Instant.from(at.toString()).toZonedDateTimeISO(shown).toPlainDateTime();
  return { date: new Date(`${wall.toString()}Z`), timeZone: 'UTC' };
}
