import type { Schemas } from '$lib/api/client';
import { dateIn, dayMonth, fullDate, timeOf } from '$lib/time/format';
import { dayOf } from './days';
import { placesOf } from './settings';

/** Something that was found, with where it is and what fits to be done with it. */
export interface Found {
  key: string;
  title: string;
  detail: string;
  way: string;
  acts: { name: string; way: string }[];
}

export interface FoundGroup {
  name: string;
  found: Found[];
}

interface Asker {
  zone: string;
  now: string;
  isCoordinator: boolean;
  isOwner: boolean;
}

/** What an answer shows, with the days and settings that need none. */
export function groupsOf(typed: string, answer: Schemas['FindAnswer'] | undefined, me: Asker): FoundGroup[] {
  const on = (at: string): string => `${dayMonth(dateIn(at, me.zone))}, ${timeOf(at, me.zone)}`;
  const day = dayOf(typed, dateIn(me.now, me.zone));
  const groups: FoundGroup[] = [
    { name: 'Day', found: day === undefined ? [] : [ofDay(day)] },
    { name: 'Guests', found: (answer?.guests ?? []).map((guest) => ofGuest(guest, me.isCoordinator)) },
    {
      name: 'Bookings',
      found: (answer?.bookings ?? []).map((one) => ({
        key: one.id,
        title: `${one.guestName}, ${on(one.start)}`,
        detail: one.title,
        way: `/work/bookings/${one.id}`,
        acts: [],
      })),
    },
    { name: 'Pages', found: (answer?.pages ?? []).map(ofPage) },
    {
      name: 'Links',
      found: (answer?.links ?? []).map((link) => ({
        key: link.id,
        title: link.title,
        detail: `${link.guests === '' ? '' : `for ${link.guests}, `}made ${on(link.madeAt)}`,
        way: `/work/links/${link.id}`,
        acts: [],
      })),
    },
    { name: 'Hosts', found: (answer?.hosts ?? []).map(ofHost) },
    {
      name: 'Screens and settings',
      found: placesOf(typed, me).map((place) => ({
        key: place.title,
        title: place.title,
        detail: '',
        way: place.way,
        acts: [],
      })),
    },
  ];
  return groups.filter((group) => group.found.length > 0);
}

function ofDay(day: string): Found {
  return {
    key: day,
    title: fullDate(day),
    detail: '',
    way: `/work/board?from=${day}&weeks=1`,
    acts: [
      { name: 'Bookings', way: `/work/bookings?when=all&from=${day}&to=${day}&order=soonest` },
      { name: 'Print', way: `/work/bookings/print?day=${day}&days=1` },
    ],
  };
}

function ofGuest(guest: Schemas['FoundGuest'], isCoordinator: boolean): Found {
  const query = new URLSearchParams({ name: guest.name });
  if (guest.email) query.set('email', guest.email);
  if (guest.zone) query.set('zone', guest.zone);
  if (guest.language) query.set('language', guest.language);
  return {
    key: guest.id,
    title: guest.name,
    detail: guest.email,
    way: `/work/guests/${guest.id}`,
    acts: [
      { name: 'Bookings', way: `/work/bookings?when=all&guest=${guest.id}` },
      ...(isCoordinator
        ? [
            { name: 'New link', way: `/work/links/new?${query}` },
            { name: 'Write', way: `/work/guests/${guest.id}/write` },
          ]
        : []),
    ],
  };
}

function ofPage(page: Schemas['FoundPage']): Found {
  return {
    key: page.id,
    title: page.title,
    detail: page.path.slice(1).replace('/', ' / '),
    way: `/work/pages/${page.id}`,
    acts: [
      { name: 'Bookings', way: `/work/bookings?page=${page.id}` },
      ...(page.isPublished ? [{ name: 'As guests see it', way: page.path }] : []),
    ],
  };
}

function ofHost(host: Schemas['FoundHost']): Found {
  return {
    key: host.id,
    title: host.name,
    detail: host.isPerson ? '' : 'room or thing',
    way: '/work/team',
    acts: [{ name: 'Bookings', way: `/work/bookings?host=${host.id}` }],
  };
}
