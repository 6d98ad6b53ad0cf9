import { Temporal } from 'temporal-polyfill';
import { counted, dayMonth, longDate } from '$lib/time/format';

export const WEEKDAY_CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;
export type WeekdayCode = (typeof WEEKDAY_CODES)[number];
const NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;
const PLACES = ['first', 'second', 'third', 'fourth'] as const;

/** How a block comes again. Whatever else RFC 5545 can say is kept as it came. */
export interface Repeat {
  how: 'once' | 'daily' | 'weekly' | 'monthlyDate' | 'monthlyDay';
  /** Every so many days, weeks or months. */
  every: number;
  /** Of a week. */
  days: readonly WeekdayCode[];
  ends: 'until' | 'count';
  /** The last date. */
  until: string;
  count: number;
}

/** The weekday of a date, as rules have it. */
export function codeOf(date: string): WeekdayCode {
  return WEEKDAY_CODES[Temporal.PlainDate.from(date).dayOfWeek - 1] ?? 'MO';
}

/** Which of its weekday in the month a date is: 1 to 4, or -1 for the last. */
function placeOf(date: string): number {
  const place = Math.ceil(Temporal.PlainDate.from(date).day / 7);
  return place > PLACES.length ? -1 : place;
}

/** The rule of a repeat that begins on a date (RFC 5545 section 3.3.10); null for once. */
export function ruleOf(repeat: Repeat, date: string): string | null {
  const parts: string[] = [];
  switch (repeat.how) {
    case 'once':
      return null;
    case 'daily':
      parts.push('FREQ=DAILY');
      break;
    case 'weekly': {
      const days = WEEKDAY_CODES.filter((code) => repeat.days.includes(code));
      parts.push('FREQ=WEEKLY', `BYDAY=${(days.length === 0 ? [codeOf(date)] : days).join(',')}`);
      break;
    }
    case 'monthlyDate':
      parts.push('FREQ=MONTHLY', `BYMONTHDAY=${String(Temporal.PlainDate.from(date).day)}`);
      break;
    default:
      parts.push('FREQ=MONTHLY', `BYDAY=${String(placeOf(date))}${codeOf(date)}`);
  }
  if (repeat.every > 1) parts.push(`INTERVAL=${String(repeat.every)}`);
  parts.push(
    repeat.ends === 'count' ? `COUNT=${String(repeat.count)}` : `UNTIL=${repeat.until.replaceAll('-', '')}T235959`,
  );
  return parts.join(';');
}

/** A rule in words: ", every 2 weeks on Monday and Friday, until 1 Feb". What it can't say it quotes. */
export function ruleInWords(rule: string): string {
  const parts = new Map(
    rule
      .toUpperCase()
      .split(';')
      .map((part) => part.split('=', 2) as [string, string]),
  );
  const every = Number(parts.get('INTERVAL') ?? '1');
  const until = /^(\d{4})(\d{2})(\d{2})/.exec(parts.get('UNTIL') ?? '');
  const count = Number(parts.get('COUNT') ?? '0');
  const end = until
    ? `, until ${dayMonth(`${until[1] ?? ''}-${until[2] ?? ''}-${until[3] ?? ''}`)}`
    : count > 0
      ? `, ${counted(count, 'time', 'times')}`
      : '';
  const each = (one: string, many: string): string => (every === 1 ? `every ${one}` : `every ${String(every)} ${many}`);
  const others = [...parts.keys()].filter(
    (key) => !['FREQ', 'INTERVAL', 'UNTIL', 'COUNT', 'BYDAY', 'BYMONTHDAY', 'WKST'].includes(key),
  );
  const days = (parts.get('BYDAY') ?? '').split(',').filter((day) => day !== '');
  const plain = days.every((day) => /^[A-Z]{2}$/.test(day));
  const placed = /^(-1|[1-4])([A-Z]{2})$/.exec(days[0] ?? '');
  const nameOf = (code: string): string => NAMES[WEEKDAY_CODES.indexOf(code as WeekdayCode)] ?? code;
  const monthDay = parts.get('BYMONTHDAY');
  const kept = `, as it came: ${rule}`;
  if (others.length > 0) return kept;
  switch (parts.get('FREQ')) {
    case 'DAILY':
      return days.length === 0 && monthDay === undefined ? `, ${each('day', 'days')}${end}` : kept;
    case 'WEEKLY':
      return plain && monthDay === undefined
        ? `, ${each('week', 'weeks')}${days.length === 0 ? '' : ` on ${listed(days.map(nameOf))}`}${end}`
        : kept;
    case 'MONTHLY':
      if (monthDay !== undefined && /^\d+$/.test(monthDay) && days.length === 0)
        return `, on the ${ordinal(Number(monthDay))} of ${each('month', 'months')}${end}`;
      return placed && days.length === 1 && monthDay === undefined
        ? `, on the ${placed[1] === '-1' ? 'last' : (PLACES[Number(placed[1]) - 1] ?? '')} ${nameOf(placed[2] ?? '')} of ${each('month', 'months')}${end}`
        : kept;
    default:
      return kept;
  }
}

/** "8th". */
function ordinal(n: number): string {
  const ends = { one: 'st', two: 'nd', few: 'rd', other: 'th' } as const;
  const rule = new Intl.PluralRules('en', { type: 'ordinal' }).select(n);
  return `${String(n)}${rule in ends ? ends[rule as keyof typeof ends] : 'th'}`;
}

function listed(words: readonly string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`;
}

/** What a repeat offers a date to choose, in words: "the 8th" or "the second Tuesday". */
export function monthlyChoices(date: string): { monthlyDate: string; monthlyDay: string } {
  const place = placeOf(date);
  return {
    monthlyDate: `Monthly on the ${ordinal(Temporal.PlainDate.from(date).day)}`,
    monthlyDay: `Monthly on the ${place === -1 ? 'last' : (PLACES[place - 1] ?? '')} ${NAMES[Temporal.PlainDate.from(date).dayOfWeek - 1] ?? ''}`,
  };
}

/** Why the last date of a repeat can't be; undefined where it can. */
export function lastDateMend(repeat: Repeat, date: string): string | undefined {
  return repeat.how !== 'once' && repeat.ends === 'until' && repeat.until < date
    ? `The first one is on ${longDate(date)}; choose a last date from then on.`
    : undefined;
}

/**
 * The last date on which a block comes, as far as its rule tells without counting; undefined where it has no end or
 * counts.
 */
export function lastDateOf(block: { start: string; rule: string | null }): string | undefined {
  if (block.rule === null) return block.start.slice(0, 10);
  const until = /(?:^|;)UNTIL=(\d{4})(\d{2})(\d{2})/i.exec(block.rule);
  return until ? `${until[1] ?? ''}-${until[2] ?? ''}-${until[3] ?? ''}` : undefined;
}
