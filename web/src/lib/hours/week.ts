import type { Schemas } from '$lib/api/client';
import { joined, minuteOf, minuteText, type Axis, type MinuteSpan } from '$lib/lanes/spans';

export type Week = Schemas['WeekDocument'];
export type Hours = Schemas['HoursDocument'];
export type OpenTimes = Schemas['OpenTimeDocument'][];
export type WeekdayKey = keyof Week;

export const weekdays = [
  { key: 'mon', name: 'Monday', short: 'Mon' },
  { key: 'tue', name: 'Tuesday', short: 'Tue' },
  { key: 'wed', name: 'Wednesday', short: 'Wed' },
  { key: 'thu', name: 'Thursday', short: 'Thu' },
  { key: 'fri', name: 'Friday', short: 'Fri' },
  { key: 'sat', name: 'Saturday', short: 'Sat' },
  { key: 'sun', name: 'Sunday', short: 'Sun' },
] as const satisfies readonly { key: WeekdayKey; name: string; short: string }[];

function workday(): OpenTimes {
  return [
    { from: '09:00', to: '12:00' },
    { from: '13:00', to: '17:00' },
  ];
}

export function usualHours(zone: string): Hours {
  return {
    zone,
    week: { mon: workday(), tue: workday(), wed: workday(), thu: workday(), fri: workday(), sat: [], sun: [] },
    changes: [],
  };
}

/** Open times as spans of minutes; what is no time of day is left out. */
export function spansOf(open: OpenTimes): MinuteSpan[] {
  return open.flatMap((time) => {
    const [from, to] = [minuteOf(time.from), minuteOf(time.to)];
    return from !== undefined && to !== undefined && to > from ? [{ from, to }] : [];
  });
}

/** Spans as open times, in order and joined where they meet. */
export function openTimesOf(spans: readonly MinuteSpan[]): OpenTimes {
  return joined(spans).map((span) => ({ from: minuteText(span.from), to: minuteText(span.to) }));
}

/** "09:00–12:00, 13:00–17:00", and "closed" for none. */
export function dayInWords(open: OpenTimes): string {
  return open.length === 0 ? 'closed' : open.map((time) => `${time.from}–${time.to}`).join(', ');
}

/** Hours in a line: "Mon–Thu 09:00–12:00, 13:00–17:00; Fri 09:00–12:00". */
export function weekInWords(week: Week): string {
  const runs: { first: string; last: string; open: string }[] = [];
  for (const day of weekdays) {
    const open = week[day.key].map((time) => `${time.from}–${time.to}`).join(', ');
    const run = runs.at(-1);
    if (run?.open === open) run.last = day.short;
    else runs.push({ first: day.short, last: day.short, open });
  }
  const words = runs
    .filter((run) => run.open !== '')
    .map((run) => `${run.first === run.last ? run.first : `${run.first}–${run.last}`} ${run.open}`)
    .join('; ');
  return words === '' ? 'never open' : words;
}

/** Whole hours around all open times, 6 to 20 at the least. */
export function axisOfWeek(week: Week): Axis {
  const spans = weekdays.flatMap((day) => spansOf(week[day.key]));
  const from = Math.min(6 * 60, ...spans.map((span) => span.from));
  const to = Math.max(20 * 60, ...spans.map((span) => span.to));
  return { from: Math.floor(from / 60) * 60, to: Math.ceil(to / 60) * 60 };
}
