import { minuteOf, minuteText } from '$lib/lanes/spans';
import { weekdays, type OpenTimes, type Week, type WeekdayKey } from './week';

/** What a typed day came to; `mend` where it can't be read, and then nothing is to be taken over. */
export interface TypedDay {
  open: OpenTimes;
  mend?: string;
}

/** A part of a typed week that can't be read. */
export interface TypedFault {
  text: string;
  mend: string;
}

const BETWEEN = /\s*(?:-|–|—|\bto\b|\bbis\b|\buntil\b)\s*/i;
const CLOSED = /^(?:closed|off|none|–|-)?$/i;

/**
 * A time of day as people type it ("9", "9.30", "0930", "9:30", "5 pm", "9:00 a.m.") as "09:30", to "24:00"; what is no
 * time comes back as it was.
 */
export function timeOfDay(typed: string): string {
  const match = /^(\d{1,2})(?:[:.h ]?(\d{2}))?h?\s*(?:([ap])\.?\s?m\.?)?$/i.exec(typed.trim());
  if (!match) return typed.trim();
  let hour = Number(match[1]);
  const minute = Number(match[2] ?? '0');
  const half = match[3]?.toLowerCase();
  if (half && (hour < 1 || hour > 12)) return typed.trim();
  if (half) hour = (hour % 12) + (half === 'p' ? 12 : 0);
  if (hour > 24 || minute > 59 || (hour === 24 && minute > 0)) return typed.trim();
  return minuteText(hour * 60 + minute);
}

/** A day's times as people type them: "9-12, 13:30–17", "closed". */
export function readDay(text: string): TypedDay {
  const trimmed = text.trim().replace(/[.;]$/, '');
  if (CLOSED.test(trimmed)) return { open: [] };
  const open: OpenTimes = [];
  for (const part of trimmed.split(/\s*(?:,|;|&|\band\b|\bund\b)\s*/i).filter((one) => one !== '')) {
    const ends = part.split(BETWEEN).map(timeOfDay);
    const [from, to] = ends.map(minuteOf);
    if (ends.length !== 2 || from === undefined || to === undefined)
      return { open: [], mend: `“${part}” is no run of time; write it as 9:00–12:00.` };
    if (to <= from)
      return {
        open: [],
        mend: `“${part}” ends before it starts. For hours over midnight, end at 24:00 and start the next day at 00:00.`,
      };
    const last = open.at(-1);
    if (last && from < (minuteOf(last.to) ?? 0))
      return { open: [], mend: `“${part}” starts before the one in front of it ends; join the two or move one.` };
    open.push({ from: minuteText(from), to: minuteText(to) });
  }
  return { open };
}

function dayNamed(word: string): number {
  const small = word.toLowerCase().replace(/s?\.?$/, '');
  return small.length < 2 ? -1 : weekdays.findIndex((day) => day.name.toLowerCase().startsWith(small));
}

/** The days that "Mon–Fri", "Sat, Sun" or "daily" name; undefined where a word is no day. */
function daysNamed(text: string): WeekdayKey[] | undefined {
  if (/^(?:daily|every day)$/i.test(text)) return weekdays.map((day) => day.key);
  if (/^(?:weekdays|workdays)$/i.test(text)) return weekdays.slice(0, 5).map((day) => day.key);
  const days: WeekdayKey[] = [];
  for (const part of text.split(/\s*(?:,|&|\band\b)\s*/i).filter((one) => one !== '')) {
    const [first, last] = part.split(BETWEEN).map(dayNamed);
    if (first === undefined || first < 0 || (last !== undefined && last < 0)) return undefined;
    for (let day = first; ; day = (day + 1) % 7) {
      const weekday = weekdays[day];
      if (weekday) days.push(weekday.key);
      if (day === (last ?? first)) break;
    }
  }
  return days.length > 0 ? days : undefined;
}

/**
 * A week as it is pasted, a line (or a part up to a semicolon) for one day or several: "Mon–Thu 8–12, 13–17", "Fri:
 * 8–13", "Sat closed". Days that are not named stay as they are. Each part that can't be read is named.
 */
export function readWeek(text: string): { week: Partial<Week>; faults: TypedFault[] } {
  const week: Partial<Week> = {};
  const faults: TypedFault[] = [];
  for (const line of text
    .split(/[\n;]+/)
    .map((one) => one.trim())
    .filter((one) => one !== '')) {
    const match = /^([^\d:\t]*?[a-z.])\s*(?:[:\t]|\s(?=\d|closed\b|off\b|–$|-$)|$)\s*(.*)$/i.exec(line);
    const days = match?.[1] === undefined ? undefined : daysNamed(match[1].trim());
    if (!days) {
      faults.push({ text: line, mend: 'Begin with a day, such as “Mon–Fri 9–17”.' });
      continue;
    }
    const times = match?.[2] ?? '';
    // A day alone would close it, which nobody may have meant.
    const day: TypedDay = times === '' ? { open: [], mend: 'Say its times, or “closed”.' } : readDay(times);
    if (day.mend) faults.push({ text: line, mend: day.mend });
    else for (const key of days) week[key] = day.open.map((time) => ({ ...time }));
  }
  return { week, faults };
}
