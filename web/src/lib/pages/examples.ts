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
}

export function workedFrom(supply: Schemas['SupplyAnswer'] | undefined): Worked | undefined {
  if (!supply) return undefined;
  return { now: supply.now, zone: supply.zone, first: supply.days.flatMap((day) => day.openings)[0]?.start, duration: supply.duration };
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

/** "starts at 09:00, 09:30, 10:00": the steps from the next opening. */
export function gridExample(times: Times, worked: Worked): string | undefined {
  const { first, zone } = worked;
  if (first === undefined || times.step < 1) return undefined;
  return `Such as ${[0, 1, 2].map((step) => at(plus(first, step * times.step), zone)).join(', ')}.`;
}

/** When the first start that notice leaves could be. */
export function noticeExample(times: Times, worked: Worked): string {
  return times.notice === 0 ? `It is ${at(worked.now, worked.zone)}: even the next minute could be taken.` : `It is ${moment(worked.now, worked.zone)}: nothing before ${moment(plus(worked.now, times.notice), worked.zone)}.`;
}

/** The first and the last day that are offered. */
export function windowExample(times: Times, worked: Worked, last: string): string {
  if (times.window?.kind === 'open') return 'There is no last day.';
  const day = `${dayName(last)} ${monthName(last)}${last.slice(0, 4) === dateIn(worked.now, worked.zone).slice(0, 4) ? '' : ` ${last.slice(0, 4)}`}`;
  return last < dateIn(worked.now, worked.zone) ? `The last day, ${day}, is over.` : `The last day is ${day}.`;
}

/**
 * "one until 10:30 keeps 10:50 free: next start 11:00". Between two openings of one page lies the larger of both buffers, since each of the two
 * is kept free around the other.
 */
export function bufferExample(times: Times, worked: Worked): string | undefined {
  const { first, zone, duration } = worked;
  if (first === undefined) return undefined;
  const gap = Math.max(times.bufferBefore, times.bufferAfter);
  const end = plus(first, duration);
  if (gap === 0) return `One until ${at(end, zone)} lets the next begin at ${at(end, zone)}.`;
  const free = plus(end, gap);
  return `One until ${at(end, zone)} keeps free until ${at(free, zone)}: next start ${at(nextOnGrid(times, first, free, zone), zone)}.`;
}

/** The first start of the grid at or after an instant; by the clock, or in steps from the opening where it is counted from open stretches. */
function nextOnGrid(times: Times, first: string, from: string, zone: string): string {
  const step = Math.max(times.step, 1);
  const local = Temporal.Instant.from(from).toZonedDateTimeISO(zone);
  const minutes = times.stepFrom === 'clock' ? local.hour * 60 + local.minute - times.stepOffset : (Date.parse(from) - Date.parse(first)) / 60_000;
  return plus(from, ((-minutes % step) + step) % step);
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
  return worked.first === undefined ? undefined : `For ${moment(worked.first, worked.zone)}: until ${moment(plus(worked.first, -minutes), worked.zone)}.`;
}
