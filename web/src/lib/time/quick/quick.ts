import tables from './tables.json';

// The first thing that a browser writes by its own tables takes it long, a slow phone a quarter of a second: whoever
// waits for a page's first view reads by these, which say the same.

const names: readonly (readonly string[])[] = tables.names;
const tags: Readonly<Record<string, Language>> = tables.tags;

interface Language {
  /** By the name of a form. */
  dates: Readonly<Record<string, string>>;
  clock: { is12: boolean; h24: string; h12: string; halves: readonly string[] };
}

/** Writes a point in time, in milliseconds since 1970 in UTC or as a date, by the clock of UTC. */
export interface Writer {
  format: (at: number | Date) => string;
}

function filled(pattern: string, at: Date, extra: Readonly<Record<string, string>> = {}): string {
  return pattern.replace(/\{([a-zA-Z]+)(\d*)\}/g, (_, what: string, list: string) => {
    if (what === 'w') return names[Number(list)]?.[at.getUTCDay()] ?? '';
    if (what === 'm') return names[Number(list)]?.[at.getUTCMonth()] ?? '';
    if (what === 'day') return String(at.getUTCDate());
    if (what === 'year') return String(at.getUTCFullYear());
    return extra[what] ?? '';
  });
}

function dateWriter(pattern: string): Writer {
  return { format: (at) => filled(pattern, new Date(at)) };
}

const two = (value: number): string => String(value).padStart(2, '0');

function timeWriter(tag: string, hour12: boolean | undefined): Writer | undefined {
  const clock = tags[tag]?.clock;
  if (!clock) return undefined;
  const is12 = hour12 ?? clock.is12;
  return {
    format: (moment) => {
      const at = new Date(moment);
      const hour = at.getUTCHours();
      return filled(is12 ? clock.h12 : clock.h24, at, {
        hour: is12 ? String(hour % 12 || 12) : two(hour),
        minute: two(at.getUTCMinutes()),
        dayPeriod: clock.halves[hour < 12 ? 0 : 1] ?? '',
      });
    },
  };
}

/**
 * The same as the browser would write, for the languages that guests read.
 * @param name Of a form of `format.ts`; of a time with the clock that it is to be written by.
 * @param tag Undefined for the browser's own.
 * @returns Undefined where these tables know no such form or language.
 */
export function quickWriter(name: string, tag: string | undefined): Writer | undefined {
  const known = tag ?? navigator.language;
  if (name.startsWith('time ')) {
    const hour12 = name.slice(5);
    return timeWriter(known, hour12 === 'undefined' ? undefined : hour12 === 'true');
  }
  const pattern = tags[known]?.dates[name];
  return pattern === undefined ? undefined : dateWriter(pattern);
}

/** Whether the browser's own language counts hours to 12; undefined where these tables do not know it. */
export function quickCounts12(): boolean | undefined {
  return tags[navigator.language]?.clock.is12;
}
