import { api, type Schemas } from '$lib/api/client';
import { must } from '$lib/api/problem';

export type Zone = Schemas['ZoneView'];

let asked: Promise<Schemas['ZonesAnswer']> | undefined;

/** The zones of the server's tables, asked for once a visit. */
export function zoneTable(): Promise<Schemas['ZonesAnswer']> {
  asked ??= must(api.GET('/api/zones')).catch((thrown: unknown) => {
    asked = undefined;
    throw thrown;
  });
  return asked;
}

/** The zone of an id, also of a former one; undefined where the tables have none. */
export function zoneOf(zones: readonly Zone[], id: string): Zone | undefined {
  return zones.find((zone) => zone.id === id) ?? zones.find((zone) => zone.also.includes(id));
}

/** Without accents, case and underscores: "São Paulo" is found by "sao paulo". */
function plain(words: string): string {
  return words.normalize('NFD').replace(/\p{M}/gu, '').replaceAll('_', ' ').toLowerCase();
}

/**
 * Zones by what is typed of a city, a country or a former name, those first whose city begins with it.
 * @param most How many at the most.
 */
export function findZones(zones: readonly Zone[], typed: string, most = 8): Zone[] {
  const words = plain(typed.trim());
  const rank = (zone: Zone): number => {
    const names = [zone.city, zone.country, zone.id, ...zone.also].map(plain);
    if (names[0]?.startsWith(words)) return 0;
    if (names.some((name) => name.split(/[ /]/).some((_, at, parts) => parts.slice(at).join(' ').startsWith(words))))
      return 1;
    return names.some((name) => name.includes(words)) ? 2 : 3;
  };
  return zones
    .map((zone) => ({ zone, rank: rank(zone) }))
    .filter((one) => one.rank < 3)
    .sort((a, b) => a.rank - b.rank)
    .slice(0, most)
    .map((one) => one.zone);
}

/** Minutes ahead of UTC as "UTC+5:30". */
export function offsetWords(minutes: number): string {
  if (minutes === 0) return 'UTC';
  const [hours, rest] = [Math.floor(Math.abs(minutes) / 60), Math.abs(minutes) % 60];
  return `UTC${minutes < 0 ? '−' : '+'}${String(hours)}${rest === 0 ? '' : `:${String(rest).padStart(2, '0')}`}`;
}
