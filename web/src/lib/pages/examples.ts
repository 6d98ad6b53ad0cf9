import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';
import { dateIn, dayName, monthName, timeOf } from '$lib/time/format';
import type { PageForm } from './form';

type Times = PageForm['times'];

/** What a rule comes to for this very page, by its next opening. */
export interface Worked {
  now: string;
  zone: string;
  /** The next opening, where there is one. */
  first: string | undefined;
  duration: number;
  /** What grid and buffers come to for it. */
  worked: Schemas['WorkedExample'] | null;
}

export function workedFrom(supply: Schemas['SupplyAnswer'] | undefined): Worked | undefined {
  if (!supply) return undefined;
  return {
    now: supply.now,
    zone: supply.zone,
    first: supply.days.flatMap((day) => day.openings)[0]?.start,
    duration: supply.duration,
    worked: supply.worked,
  };
}

function plus(instant: string, minutes: number): string {
  return Temporal.Instant.from(instant).add({ minutes }).toString();
}

function at(instant: string, zone: string): string {
  return timeOf(instant, zone);
}

function moment(instant: string, zone: string): string {
  return `${dayName(dateIn(instant, zone))}, ${at(instant, zone)}`;
}

/** "Such as 09:00, 09:20, 09:40.": starts of the grid from the next opening on. */
export function gridExample({ worked, zone }: Worked): string | undefined {
  return worked ? `Such as ${worked.starts.map((start) => at(start, zone)).join(', ')}.` : undefined;
}

/** "17:00, 17:05, 17:20": starts of one day that stand less than a step apart; undefined where none do. */
export function closeStarts(supply: Schemas['SupplyAnswer'], step: number): string | undefined {
  for (const { openings } of supply.days) {
    const at = openings.findIndex((one, i) => {
      const before = openings[i - 1];
      return before !== undefined && one.fromMinute - before.fromMinute < step;
    });
    if (at > 0)
      return openings
        .slice(at - 1, at + 3)
        .map((one) => timeOf(one.start, supply.zone))
        .join(', ');
  }
  return undefined;
}

/** How many more starts a booking closes because of what is kept free around it; undefined where none fall out. */
export function neighboursExample(times: Times): string | undefined {
  const kept = Math.max(times.bufferBefore, times.bufferAfter);
  const duration = times.durations[0] ?? 30;
  const more = Math.ceil((duration + kept) / times.step) - Math.ceil(duration / times.step);
  if (kept === 0 || more <= 0) return undefined;
  return `For ${String(kept)} minutes kept free, each booking closes ${more === 1 ? 'one more start' : `${String(more)} more starts`} on either side.`;
}

/** When the first start that notice leaves could be. */
export function noticeExample(times: Times, worked: Worked): string {
  return times.notice === 0
    ? `It is ${at(worked.now, worked.zone)}: even the next minute could be taken.`
    : `It is ${moment(worked.now, worked.zone)}: nothing before ${moment(plus(worked.now, times.notice), worked.zone)}.`;
}

/** The first and the last day that are offered. */
export function windowExample(times: Times, worked: Worked, last: string): string {
  if (times.window?.kind === 'open') return 'There is no last day.';
  const day = `${dayName(last)} ${monthName(last)}${last.slice(0, 4) === dateIn(worked.now, worked.zone).slice(0, 4) ? '' : ` ${last.slice(0, 4)}`}`;
  return last < dateIn(worked.now, worked.zone) ? `The last day, ${day}, is over.` : `The last day is ${day}.`;
}

/** "One until 10:30 keeps free until 10:50: next start 11:00." */
export function bufferExample({ first, duration, worked, zone }: Worked): string | undefined {
  if (first === undefined || !worked) return undefined;
  const end = plus(first, duration);
  const next = at(worked.next, zone);
  return Date.parse(worked.freeFrom) === Date.parse(end)
    ? `One until ${at(end, zone)} lets the next begin at ${next}.`
    : `One until ${at(end, zone)} keeps free until ${at(worked.freeFrom, zone)}: next start ${next}.`;
}

/** What a cap closes. */
export function capExample(times: Times, worked: Worked): string | undefined {
  if (worked.first === undefined || (times.dailyCap === null && times.weeklyCap === null)) return undefined;
  const day = dayName(dateIn(worked.first, worked.zone));
  const daily = times.dailyCap === null ? [] : [`${day} closes once it has ${String(times.dailyCap)}`];
  const weekly = times.weeklyCap === null ? [] : [`the week of ${day} once it has ${String(times.weeklyCap)}`];
  const [one, other] = [...daily, ...weekly];
  return other === undefined ? `${capitalised(one ?? '')}.` : `${capitalised(one ?? '')}, and ${other}.`;
}

function capitalised(words: string): string {
  return words.slice(0, 1).toUpperCase() + words.slice(1);
}

/** Who shares a start of a group page. */
export function placesExample(times: Times, worked: Worked): string | undefined {
  if (worked.first === undefined || times.places === 1) return undefined;
  return `${moment(worked.first, worked.zone)} is open to ${String(times.places)} guests; the one after them finds it taken.`;
}

/** Until when a guest may do something with the next opening. */
export function untilExample(minutes: number, worked: Worked): string | undefined {
  return worked.first === undefined
    ? undefined
    : `For ${moment(worked.first, worked.zone)}: until ${moment(plus(worked.first, -minutes), worked.zone)}.`;
}
