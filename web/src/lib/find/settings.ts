/** A screen where something is set, or kept, found by what it is about. */
interface Place {
  title: string;
  /** What else people call it. */
  words: string;
  way: string;
  /** Who sees it: everybody, who coordinates, or owners. */
  who?: 'coordinator' | 'owner';
}

const places: Place[] = [
  { title: 'Your profile', words: 'settings name portrait language clock time zone keys', way: '/work/you' },
  { title: 'Your notifications', words: 'settings mail quiet hours daily', way: '/work/you/notifications' },
  { title: 'Acting for you', words: 'settings permissions let allow assistant', way: '/work/you/acting' },
  { title: 'Password and sign-ins', words: 'settings security devices second factor', way: '/work/you/security' },
  { title: 'Your defaults', words: 'settings buffers notice reminders duration', way: '/work/you/usual' },
  { title: 'Workspace', words: 'settings name time zone kinds defaults', way: '/work/team', who: 'owner' },
  { title: 'Team', words: 'people roles invite rooms load weights', way: '/work/team' },
  { title: 'Fields of guests', words: 'settings custom', way: '/work/guests/fields', who: 'owner' },
  {
    title: 'Retention',
    words: 'settings erase privacy how long guests are kept',
    way: '/work/guests/retention',
    who: 'owner',
  },
  { title: 'Import guests', words: 'csv vcard file', way: '/work/guests/import', who: 'coordinator' },
  { title: 'Letters', words: 'templates blanks mail', way: '/work/guests/letters', who: 'coordinator' },
  { title: 'Mailings', words: 'offers to several many', way: '/work/guests/mailings', who: 'coordinator' },
  { title: 'Flagged bookings', words: 'screening', way: '/work/bookings/flagged', who: 'coordinator' },
  { title: 'Print bookings', words: 'wall paper day week', way: '/work/bookings/print' },
  { title: 'Hours', words: 'office working holidays', way: '/work/hours' },
  { title: 'Calendars', words: 'caldav join ics feed', way: '/work/calendars' },
  { title: 'Board', words: 'day week lanes', way: '/work/board' },
  { title: 'Record', words: 'who did what changes history trail audit', way: '/work/record' },
  { title: 'Post', words: 'mail messages sent failed', way: '/work/post' },
  { title: 'New page', words: 'make create booking', way: '/work/pages/new', who: 'coordinator' },
  { title: 'New link', words: 'make create offer', way: '/work/links/new', who: 'coordinator' },
  { title: 'New guest', words: 'make add', way: '/work/guests/new', who: 'coordinator' },
];

const MOST = 4;

/** The places of whose words each begins as something typed does. */
export function placesOf(typed: string, me: { isCoordinator: boolean; isOwner: boolean }): Place[] {
  const asked = typed.toLowerCase().split(/\s+/).filter(Boolean);
  if (asked.length === 0) return [];
  const begins = (text: string, word: string): boolean =>
    text
      .toLowerCase()
      .split(/[\s-]+/)
      .some((one) => one.startsWith(word));
  return places
    .filter((place) => (place.who === 'owner' ? me.isOwner : place.who === undefined || me.isCoordinator))
    .filter((place) => asked.every((word) => begins(`${place.title} ${place.words}`, word)))
    .sort((one, other) => Number(begins(other.title, asked[0] ?? '')) - Number(begins(one.title, asked[0] ?? '')))
    .slice(0, MOST);
}
