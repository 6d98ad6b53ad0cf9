import { wallClock, type Moment } from './offsets';

// The reader's locale is the browser's, and so is the clock until somebody who signed in has chosen one.
let hour12: boolean | undefined;

/** Shows times by a clock that a person has chosen. */
export function setClock(clock: 'h24' | 'h12' | undefined): void {
  hour12 = clock === undefined ? undefined : clock === 'h12';
}

// Undefined for the browser's own.
let locale: string | undefined;

/** Writes dates in a language that a page is read in. */
export function setLocale(tag: string | undefined): void {
  locale = tag;
}

interface Writer {
  format: (at: number | Date) => string;
}

/** Writes the same as the browser would, where it can, and is there sooner. */
interface Quick {
  quickWriter: (name: string, tag: string | undefined) => Writer | undefined;
  quickCounts12: () => boolean | undefined;
}

let quick: Quick | undefined;

/** Writes by tables of our own from now on, where those know the language. */
export function writeQuickly(tables: Quick): void {
  quick = tables;
}

const made = new Map<string, Writer>();

// Making a formatter takes long, and so does telling options apart: each is made once for a language, by its name.
function formatter(name: string, tag: string | undefined, options: Intl.DateTimeFormatOptions): Writer {
  const key = `${tag ?? ''} ${name}`;
  const known =
    made.get(key) ?? quick?.quickWriter(name, tag) ?? new Intl.DateTimeFormat(tag, { ...options, timeZone: 'UTC' });
  made.set(key, known);
  return known;
}

function dateFormatter(name: string, options: Intl.DateTimeFormatOptions): (date: string) => string {
  return (date) => formatter(name, locale, options).format(Date.parse(date));
}

let browsers: boolean | undefined;

function browserCounts12(): boolean {
  browsers ??=
    quick?.quickCounts12() ?? new Intl.DateTimeFormat(undefined, { hour: 'numeric' }).resolvedOptions().hour12 ?? false;
  return browsers;
}

/** "09:00" or "9:00 AM". */
export function timeOf(instant: Moment, zone: string): string {
  const isShort = hour12 ?? browserCounts12();
  // Whoever chose no clock reads by that of their browser, in whatever language a page is.
  return formatter(`time ${String(hour12)}`, undefined, {
    hour: isShort ? 'numeric' : '2-digit',
    minute: '2-digit',
    ...(hour12 === undefined ? {} : { hourCycle: hour12 ? 'h12' : 'h23' }),
  }).format(wallClock(instant, zone));
}

/** A minute after midnight by the reader's clock; the end of a day is midnight, or "24:00". */
export function clockMinute(minute: number): string {
  if (minute === 1440 && shownClock() === 'h24') return '24:00';
  return timeOf(minute * 60_000, 'UTC');
}

/** By which clock times are shown: the one that was chosen, or that of the browser's locale. */
export function shownClock(): 'h24' | 'h12' {
  return (hour12 ?? browserCounts12()) ? 'h12' : 'h24';
}

/** "Tuesday, 8 December". */
export const longDate = dateFormatter('longDate', { weekday: 'long', day: 'numeric', month: 'long' });

/** "Tuesday, 8 December 2026". */
export const fullDate = dateFormatter('fullDate', { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' });

/** "8 Dec". */
export const dayMonth = dateFormatter('dayMonth', { day: 'numeric', month: 'short' });

/** "Tue 8 Dec". */
export const shortDate = dateFormatter('shortDate', { weekday: 'short', day: 'numeric', month: 'short' });

/** "Tue". */
export const shortWeekday = dateFormatter('shortWeekday', { weekday: 'short' });

/** "Tuesday". */
export const weekday = dateFormatter('weekday', { weekday: 'long' });

/** "December". */
export const monthName = dateFormatter('monthName', { month: 'long' });

/** "December 2026". */
export const monthYear = dateFormatter('monthYear', { month: 'long', year: 'numeric' });

/** "Tue 8": weekday and day of the month. */
export function dayName(date: string): string {
  return `${shortWeekday(date)} ${String(Number(date.slice(8)))}`;
}

export function dateIn(instant: Moment, zone: string): string {
  return wallClock(instant, zone).toISOString().slice(0, 10);
}

/** "45 min", "1 h", "1 h 30". */
export function lengthOf(minutes: number): string {
  if (minutes < 60) return `${minutes} min`;
  const rest = minutes % 60;
  return rest === 0 ? `${minutes / 60} h` : `${Math.floor(minutes / 60)} h ${String(rest).padStart(2, '0')}`;
}

/** "1 opening", "3 openings". */
export function counted(count: number, one: string, many: string): string {
  return `${count.toLocaleString()} ${count === 1 ? one : many}`;
}
