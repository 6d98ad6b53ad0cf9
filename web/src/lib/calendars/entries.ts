import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';
import { dayName, dayMonth, shortWeekday } from '$lib/time/format';

type Entry = Schemas['OwnEntryForm'];

/** An entry as its form is filled in. Times are of the host's wall clock. */
export interface TypedEntry {
  title: string;
  from: string;
  fromTime: string;
  /** The last day, for whole days. */
  to: string;
  toTime: string;
  wholeDay: boolean;
  shows: Entry['shows'];
  repeats: Entry['repeats'];
  until: string;
}

export function blankOn(date: string): TypedEntry {
  return {
    title: '',
    from: date,
    fromTime: '09:00',
    to: date,
    toTime: '10:00',
    wholeDay: false,
    shows: 'busy',
    repeats: 'once',
    until: '',
  };
}

export function typedOf(entry: Entry): TypedEntry {
  const [from = '', fromTime = ''] = entry.start.split('T');
  const [to = '', toTime = ''] = entry.end.split('T');
  const last = entry.wholeDay ? Temporal.PlainDate.from(to).subtract({ days: 1 }).toString() : to;
  return {
    title: entry.title,
    from,
    fromTime: fromTime.slice(0, 5),
    to: last,
    toTime: toTime.slice(0, 5),
    wholeDay: entry.wholeDay,
    shows: entry.shows,
    repeats: entry.repeats,
    until: entry.until ?? '',
  };
}

export function entryOf(typed: TypedEntry): Entry {
  const to = typed.to === '' ? typed.from : typed.to;
  return {
    title: typed.title,
    start: typed.wholeDay ? `${typed.from}T00:00:00` : `${typed.from}T${typed.fromTime}:00`,
    end: typed.wholeDay
      ? `${Temporal.PlainDate.from(to).add({ days: 1 }).toString()}T00:00:00`
      : `${to}T${typed.toTime}:00`,
    wholeDay: typed.wholeDay,
    shows: typed.shows,
    repeats: typed.repeats,
    until: typed.repeats === 'once' || typed.until === '' ? null : typed.until,
  };
}

const EVERY: Record<Entry['repeats'], string> = {
  once: '',
  daily: 'every day',
  weekly: 'every',
  monthly: 'every month',
};

/** "Tue 8, 09:00 to 10:00", "Tue 8 to Fri 11 Dec, whole days", "every Tue from 8 Dec, 09:00 to 10:00, tentative". */
export function entryInWords(entry: Entry): string {
  const typed = typedOf(entry);
  const month = dayMonth(typed.from);
  const first = `${shortWeekday(typed.from)} ${month}`;
  const days =
    typed.from === typed.to ? first : `${dayName(typed.from)} to ${shortWeekday(typed.to)} ${dayMonth(typed.to)}`;
  const when =
    typed.repeats === 'once'
      ? days
      : `${EVERY[typed.repeats]}${typed.repeats === 'weekly' ? ` ${shortWeekday(typed.from)}` : ''} from ${month}${typed.until === '' ? '' : ` to ${dayMonth(typed.until)}`}`;
  const span = typed.wholeDay
    ? typed.from === typed.to
      ? 'whole day'
      : 'whole days'
    : `${typed.fromTime} to ${typed.toTime}`;
  return [when, span, ...(entry.shows === 'busy' ? [] : [entry.shows === 'free' ? 'free' : 'tentative'])].join(', ');
}
