import type { Schemas } from '$lib/api/client';

export type PageForm = Schemas['PageForm'];
/** Where a new page starts from: somebody's usual settings. */
export function newForm(zone: string, deskId: string, hostId: string, usual?: Schemas['UsualSettings']): PageForm {
  return {
    title: '',
    deskId,
    address: '',
    description: '',
    placeKind: usual?.placeKind ?? 'inPerson',
    place: usual?.place ?? '',
    keepsHosts: false,
    times: {
      zone,
      lineUp: [{ hostIds: [hostId], fill: 'balanced' }],
      durations: [usual?.duration ?? 30],
      step: usual?.duration ?? 30,
      stepOffset: 0,
      stepFrom: 'clock',
      bufferBefore: usual?.bufferBefore ?? 0,
      bufferAfter: usual?.bufferAfter ?? 0,
      notice: usual?.notice ?? 240,
      aheadDays: 28,
      hoursMode: 'hosts',
      hours: null,
      dailyCap: null,
      weeklyCap: null,
      places: 1,
      blocks: null,
      calendars: [],
      window: null,
      startsApart: false,
      hoursOf: null,
    },
    changes: usualChanges(),
    post: { ...usualPost(), reminders: [...(usual?.reminders ?? usualPost().reminders)] },
    approvalHours: null,
    questions: [],
    details: usualDetails(),
  };
}

/** What guests may do with their bookings where nobody chose. */
export function usualChanges(): Schemas['ChangeRules'] {
  return { mayMove: true, moveUntil: 0, mayCancel: true, cancelUntil: 0, mostBrought: 3, cancelWords: '', askWhom: '' };
}

/** What a page says of itself where nobody chose. */
export function usualDetails(): Schemas['PageDetails'] {
  return {
    naming: { name: '', kind: '', mark: null },
    face: { language: '', accent: '', showsHosts: true, placeZoneOnly: false, isListed: true },
    place: { directions: '', hostsRing: true },
    after: { words: '', goTo: '', offersAnother: false, provesEmail: false },
    lead: 0,
    alsoInvited: [],
    screening: [],
    mostOpen: null,
    forOthers: false,
  };
}

/** What a page sends where nobody chose. */
export function usualPost(): Schemas['PagePost'] {
  return {
    toGuests: 'invitation',
    reminders: [1440, 60],
    booked: null,
    moved: null,
    cancelled: null,
    reminder: null,
    eventTitle: '',
    eventText: '',
    hostWords: '',
    links: [],
  };
}

/** A line-up in words: "Ann", "Ann or Ben", "Ann, Cem, and Ben or Dag". */
export function lineUpInWords(seats: readonly (readonly string[])[]): string {
  const listed = (words: readonly string[], last: string): string =>
    words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')}${last}${words.at(-1) ?? ''}`;
  const pools = seats.map((hosts) => listed(hosts, ' or '));
  const isPlain = seats.every((hosts) => hosts.length === 1);
  return listed(pools, isPlain ? ' and ' : ', and ');
}
