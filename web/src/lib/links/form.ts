import { cutText } from '$lib/words/cutText';
import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';
import { languages } from './languages';

export type LinkForm = Schemas['LinkForm'];
export type Offer = Schemas['Offer'];

/** How far a new link offers, and for how long it lives. */
const DAYS_AHEAD = 11;

/** What everything new starts from. */
export interface Setting {
  /** The date it is now, in the link's zone. */
  today: string;
  zone: string;
  deskId: string;
  usual: Schemas['UsualSettings'];
}

export function plusDays(date: string, days: number): string {
  return Temporal.PlainDate.from(date).add({ days }).toString();
}

const seatsOf = (hostIds: readonly string[]): LinkForm['times']['lineUp'] =>
  hostIds.map((id) => ({ hostIds: [id], fill: 'inOrder' as const }));

/** A link for nobody yet, of one seat for a host. */
export function blankLink(setting: Setting, hostIds: readonly string[]): LinkForm {
  const { usual, today } = setting;
  const until = plusDays(today, DAYS_AHEAD);
  return {
    title: '',
    deskId: setting.deskId,
    description: '',
    placeKind: usual.placeKind ?? 'video',
    place: usual.place ?? '',
    times: {
      zone: setting.zone,
      lineUp: seatsOf(hostIds),
      durations: [usual.duration ?? 30],
      step: 15,
      bufferBefore: usual.bufferBefore ?? 0,
      bufferAfter: usual.bufferAfter ?? 0,
      notice: usual.notice ?? 240,
      offer: {
        by: 'picked',
        picked: [],
        painted: [],
        days: [],
        fromMinute: 480,
        toMinute: 1080,
        until,
        mostShown: null,
        from: null,
      },
      overridden: [],
      calendars: [],
    },
    guests: [],
    guestZone: '',
    guestLanguage: usual.language ?? 'en',
    details: {
      lead: 0,
      alsoInvited: [],
      hostWords: '',
      notes: '',
      leavesFree: false,
      takes: 1,
      reopens: true,
      endsOn: until,
      topic: '',
      text: { zones: 'both', asRanges: null, clock: null, withAddress: true, mostListed: null },
      startedFrom: '',
      isAmongOurselves: false,
      hostsRing: true,
      questions: [],
      together: true,
      booksByItself: false,
    },
  };
}

/** A link for what a page offers: its title, place, line-up, lengths and questions. */
export function fromPage(setting: Setting, page: Schemas['PageForm']): LinkForm {
  const blank = blankLink({ ...setting, zone: page.times.zone, deskId: page.deskId }, []);
  return {
    ...blank,
    title: page.title,
    description: page.description,
    placeKind: page.placeKind,
    place: page.place,
    times: {
      ...blank.times,
      lineUp: structuredClone(page.times.lineUp),
      durations: [...page.times.durations],
      step: page.times.step,
      bufferBefore: page.times.bufferBefore,
      bufferAfter: page.times.bufferAfter,
      notice: page.times.notice,
      calendars: structuredClone(page.times.calendars ?? []),
    },
    details: {
      ...blank.details,
      lead: page.details?.lead ?? 0,
      alsoInvited: structuredClone(page.details?.alsoInvited ?? []),
      hostWords: page.post?.hostWords ?? '',
      hostsRing: page.details?.place.hostsRing ?? true,
      questions: structuredClone(page.questions ?? []),
      startedFrom: `“${page.title}”`,
    },
  };
}

/**
 * A link like an earlier one or a saved pattern, with its dates moved to begin today. Nothing of the past is picked in
 * it.
 */
export function fromLink(setting: Setting, earlier: LinkForm, startedFrom: string): LinkForm {
  const next = structuredClone(earlier);
  const until = plusDays(setting.today, DAYS_AHEAD);
  next.times.offer = {
    ...next.times.offer,
    picked: [],
    painted: next.times.offer.painted.filter((paint) => paint.isWeekly),
    from: null,
    until,
  };
  next.details = { ...next.details, endsOn: until, topic: '', startedFrom };
  return next;
}

/**
 * A link for the same again as an event of a calendar: its title, its length, and its people, of the team and beyond.
 */
export function fromEvent(
  setting: Setting,
  event: Schemas['EventBeginning'],
  people: Schemas['PeopleOfEvent'],
): LinkForm {
  const blank = blankLink(setting, people.hostIds);
  const minutes = Math.min(Math.max(Math.round(event.minutes / 5) * 5, 5), 1440);
  return {
    ...blank,
    title: cutText(event.title, 120),
    times: { ...blank.times, durations: [minutes] },
    guests: people.guests,
    details: { ...blank.details, startedFrom: `“${cutText(event.title, 150)}” in a calendar` },
  };
}

/** The same with these hosts alone, a seat for each; with those it has where there are none. */
export function withHosts(form: LinkForm, ids: readonly string[]): LinkForm {
  if (ids.length === 0) return form;
  return { ...form, times: { ...form.times, lineUp: seatsOf(ids) } };
}

/** A link for whom other programs lead here with (`name`, `email` and `zone` of an address); nothing is sent by it. */
export function forGuestOf(form: LinkForm, asked: URLSearchParams): LinkForm {
  const [name, email] = [asked.get('name')?.trim() ?? '', asked.get('email')?.trim() ?? ''];
  const [zone, language] = [asked.get('zone')?.trim() ?? '', asked.get('language') ?? ''];
  return {
    ...form,
    guests: name === '' && email === '' ? form.guests : [{ name, email }],
    guestZone: isZone(zone) ? zone : form.guestZone,
    guestLanguage: languages.some((one) => one.value === language) ? language : form.guestLanguage,
  };
}

function isZone(zone: string): boolean {
  if (zone === '') return false;
  try {
    return new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}
