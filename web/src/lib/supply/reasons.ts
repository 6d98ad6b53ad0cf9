import type { Schemas } from '$lib/api/client';
import { dateIn, dayName, lengthOf, monthName, shortDate, timeOf } from '$lib/time/format';

type Dark = Schemas['DarkAnswer'];
type Reason = Schemas['ReasonView'];

/** Why a stretch has no openings, a sentence each. */
export function darkSentences(dark: Dark): string[] {
  const said = [...dark.ofPage.map((reason) => ofPage(reason, dark)), ...dark.seats.map((seat) => ofSeat(seat, dark))];
  if (dark.shared.length > 0) said.push(`${dark.shared.join(' and ')} can’t fill two seats at once.`);
  return said.length > 0 ? [...new Set(said)] : ['No start of this page’s grid falls in here.'];
}

function ofPage(reason: Reason, dark: Dark): string {
  switch (reason.rule) {
    case 'notice':
      return `Notice: nothing is offered before ${moment(reason.to, dark.zone)}.`;
    case 'window':
      return reason.from && reason.to
        ? `It lies outside the days that are offered, which end with ${day(before(reason.to), dark.zone)}.`
        : 'The page’s dates are over.';
    case 'pageCaps':
      return `The page takes at most ${String(reason.cap)} a ${reason.period === 'week' ? 'week' : 'day'} and has reached that.`;
    case 'hours':
    case 'only':
      return `The page is closed ${during(reason, dark)}.`;
    case 'places':
      return `All places at ${time(reason.from, dark.zone)} are taken.`;
    default:
      return 'No start of this page’s grid falls in here.';
  }
}

function ofSeat(seat: Schemas['DarkSeatView'], dark: Dark): string {
  const [only] = seat.hosts;
  const number = `seat ${String(seat.seat + 1)}`;
  if (only?.isKeeper) return `${only.name} ${lacks(only, dark)}, and ${number} is for this guest’s keeper only.`;
  if (seat.hosts.length === 1 && only) return `${only.name} ${lacks(only, dark)}, and ${number} has nobody else.`;
  return `Nobody is free for ${number}: ${seat.hosts.map((host) => `${host.name} ${lacks(host, dark)}`).join('; ')}.`;
}

function lacks(host: Schemas['DarkHostView'], dark: Dark): string {
  // Who is away all day need not be told to be closed in the evening as well.
  const allDay = host.reasons.filter((reason) => isAllDay(reason, dark));
  const closed = host.reasons.filter((reason) => reason.rule === 'hours' || reason.rule === 'only');
  const others = host.reasons.filter((reason) => !closed.includes(reason)).map((reason) => lack(reason, dark));
  const said =
    allDay.length > 0
      ? allDay.map((reason) => lack(reason, dark))
      : [
          ...(closed.length > 0 ? [`is closed ${listed(closed.map((reason) => during(reason, dark)))}`] : []),
          ...others,
        ];
  return listed([...new Set(said)]);
}

function listed(words: readonly string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`;
}

function lack(reason: Reason, dark: Dark): string {
  switch (reason.rule) {
    case 'hours':
    case 'only':
      return 'is closed all day';
    case 'calendars': {
      if (reason.calendar === 'the team') return 'has left the team';
      const what = reason.title ? ` (“${reason.title}”)` : reason.calendar ? ` (${reason.calendar})` : '';
      return isAllDay(reason, dark) ? `is away all day${what}` : `is busy ${during(reason, dark)}${what}`;
    }
    case 'commitments':
      return `is ${reason.isHold ? 'held' : 'booked'} ${during(reason, dark)}${reason.page ? ` (${reason.page})` : ''}`;
    case 'hostCaps':
      return `has the ${String(reason.cap)} a ${reason.period === 'week' ? 'week' : 'day'} that they take`;
    default:
      return 'starts at other minutes';
  }
}

/** Whether a reason holds for the whole local date that is asked about. */
function isAllDay(reason: Reason, dark: Dark): boolean {
  if (!reason.from || !reason.to) return false;
  const asked = dateIn(dark.from, dark.zone);
  return dateIn(before(reason.from), dark.zone) < asked && dateIn(reason.to, dark.zone) > asked;
}

function during(reason: Reason, dark: Dark): string {
  if (!reason.from || !reason.to) return 'then';
  if (isAllDay(reason, dark)) return 'all day';
  return `${time(reason.from, dark.zone)} to ${time(reason.to, dark.zone)}`;
}

function time(instant: string | null, zone: string): string {
  return instant ? timeOf(instant, zone) : '';
}

function day(instant: string | null, zone: string): string {
  if (!instant) return '';
  const date = dateIn(instant, zone);
  return `${dayName(date)} ${monthName(date)}`;
}

function moment(instant: string | null, zone: string): string {
  return `${day(instant, zone)}, ${time(instant, zone)}`;
}

/** The end of a run of days is the midnight after it. */
function before(instant: string): string {
  return new Date(Date.parse(instant) - 1000).toISOString();
}

const onDate = (date: string | null): string => (date === null ? 'later' : shortDate(date));

/** What to call a mistake by which a page offers nothing at all, and how to mend it. */
export function emptyWords(cause: Schemas['EmptyView'], duration: string): string {
  const whose = cause.host === null ? 'This page' : cause.host;
  switch (cause.kind) {
    case 'datesPast':
      return 'The last date that is offered is over. Choose later dates.';
    case 'noticeBeyondWindow':
      return 'So much notice is needed that the last day offered comes before it. Ask for less notice, or offer more days.';
    case 'pageClosed':
      return 'This page’s own hours are closed all the time. Open some.';
    case 'hostClosed':
      return `${whose} has no open hours in these weeks. Set their hours, or give the seat to someone else.`;
    case 'windowClosed':
      return `No day that is offered is open; the next open one is ${onDate(cause.opens)}. Offer more days.`;
    case 'opensLater':
      return `Nothing is open on these days; the next open one is ${onDate(cause.opens)}.`;
    case 'hoursApart':
      return `This page’s hours and those of ${whose} are never open at one time. Look at the time zones of both.`;
    default:
      return `The longest run of open time is ${lengthOf(cause.minutes ?? 0)}, but an opening takes ${duration}. Open longer, or offer a shorter duration.`;
  }
}
