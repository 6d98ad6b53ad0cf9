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

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const;

const FREQUENCIES: Readonly<Record<string, readonly [string, string]>> = {
  SECONDLY: ['second', 'seconds'],
  MINUTELY: ['minute', 'minutes'],
  HOURLY: ['hour', 'hours'],
  DAILY: ['day', 'days'],
  WEEKLY: ['week', 'weeks'],
  MONTHLY: ['month', 'months'],
  YEARLY: ['year', 'years'],
};

/** How each part of a rule that narrows it is said, in the order in which they are said. */
const NARROWED: readonly (readonly [string, (values: string[]) => string])[] = [
  ['BYMONTH', (values) => `in ${listed(values.map((month) => MONTHS[Number(month) - 1] ?? month))}`],
  ['BYWEEKNO', (values) => `in the ${listed(values.map(place))} week of the year`],
  ['BYYEARDAY', (values) => `on the ${listed(values.map(place))} day of the year`],
  ['BYMONTHDAY', (values) => `on the ${listed(values.map(place))} day of the month`],
  ['BYDAY', (values) => `on ${listed(values.map(dayInWords))}`],
  ['BYHOUR', (values) => `at hour ${listed(values)}`],
  ['BYMINUTE', (values) => `at minute ${listed(values)}`],
  ['BYSECOND', (values) => `at second ${listed(values)}`],
  ['BYSETPOS', (values) => `, of these the ${listed(values.map(place))} one`],
  ['WKST', (values) => `, weeks beginning on ${values.map(dayInWords).join()}`],
];

/**
 * Any rule of RFC 5545 section 3.3.10 in words, with a comma before them: ", every 2 weeks on Monday and Friday, until
 * 1 Feb". Parts that the standard does not know are quoted.
 */
export function ruleInWords(rule: string): string {
  const parts = new Map(
    rule
      .toUpperCase()
      .split(';')
      .filter((part) => part.includes('='))
      .map((part) => part.split('=', 2) as [string, string]),
  );
  const valuesOf = (name: string): string[] => (parts.get(name) ?? '').split(',').filter((value) => value !== '');
  const [frequency] = valuesOf('FREQ');
  const unit = FREQUENCIES[frequency ?? ''];
  if (!unit) return `, as it came: ${rule}`;
  const every = Number(parts.get('INTERVAL') ?? '1');
  const each = every === 1 ? `every ${unit[0]}` : `every ${String(every)} ${unit[1]}`;
  // Where a week begins makes a difference only to weeks that are left out.
  const said = NARROWED.filter(([name]) => parts.has(name) && !(name === 'WKST' && every === 1));
  const [only] = said;
  const [value = ''] = only ? valuesOf(only[0]) : [];
  const isOne = said.length === 1 && only !== undefined && valuesOf(only[0]).length === 1;
  const known = new Set(['FREQ', 'INTERVAL', 'UNTIL', 'COUNT', 'WKST', ...NARROWED.map(([name]) => name)]);
  const unknown = [...parts].filter(([name]) => !known.has(name)).map(([name, is]) => `${name}=${is}`);
  const start =
    frequency === 'MONTHLY' && isOne && only[0] === 'BYMONTHDAY' && !value.startsWith('-')
      ? `on the ${ordinal(Number(value))} of ${each}`
      : frequency === 'MONTHLY' && isOne && only[0] === 'BYDAY' && !/^[A-Z]/.test(value)
        ? `on ${dayInWords(value)} of ${each}`
        : [each, ...said.map(([name, say]) => say(valuesOf(name)))].join(' ').replaceAll(' ,', ',');
  return `, ${[start, ...unknown].join(', ')}${endInWords(parts)}`;
}

function endInWords(parts: ReadonlyMap<string, string>): string {
  const until = /^(\d{4})(\d{2})(\d{2})/.exec(parts.get('UNTIL') ?? '');
  const count = Number(parts.get('COUNT') ?? '0');
  if (until) return `, until ${dayMonth(`${until[1] ?? ''}-${until[2] ?? ''}-${until[3] ?? ''}`)}`;
  return count > 0 ? `, ${counted(count, 'time', 'times')}` : '';
}

/** "Monday", "the second Tuesday", "the last Friday". */
function dayInWords(value: string): string {
  const match = /^([+-]?\d+)?([A-Z]{2})$/.exec(value);
  const name = NAMES[WEEKDAY_CODES.indexOf((match?.[2] ?? '') as WeekdayCode)] ?? value;
  return match?.[1] === undefined ? name : `the ${place(match[1])} ${name}`;
}

/** A place counted from the beginning, or from the end: "first", "12th", "last", "2nd last". */
function place(value: string): string {
  const n = Number(value);
  if (n < 0) return n === -1 ? 'last' : `${ordinal(-n)} last`;
  return PLACES[n - 1] ?? ordinal(n);
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
