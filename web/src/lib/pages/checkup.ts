import type { Schemas } from '$lib/api/client';
import { lengthOf } from '$lib/time/format';
import type { PageForm } from './form';
import { missingPlace } from './missingPlace';

/** Something that would make a page better, and the control to do it at. */
export interface Point {
  words: string;
  /** The id of the control, or an address where it is mended. */
  at: string;
}

const FEW_OPENINGS = 5;
const FEW_DAYS = 3;
const LONG_TALK = 60;
const MANY_QUESTIONS = 5;
/** How many events of a calendar are named here; all of them stand beside the calendar. */
const FEW_UNREAD = 3;

/**
 * What could be better about a page. Nothing of it keeps it from being published.
 * @param hasPicture Whether guests see a picture, its own or its desk's.
 */
export function checkUp(
  form: PageForm,
  supply: Schemas['SupplyAnswer'] | undefined,
  calendars: readonly Schemas['CalendarView'][],
  guestNames: readonly string[],
  hasPicture = true,
): Point[] {
  const { times, details } = form;
  const points: (Point | false)[] = [];
  if (supply && supply.total > 0) {
    const fortnight = supply.days.slice(0, 14);
    const count = fortnight.reduce((sum, day) => sum + day.openings.length, 0);
    const days = fortnight.filter((day) => day.openings.length > 0).length;
    if (count < FEW_OPENINGS)
      points.push({
        words: `Only ${count === 1 ? '1 opening' : `${String(count)} openings`} in two weeks.`,
        at: 'relaxations',
      });
    else if (days < FEW_DAYS)
      points.push({
        words: `Only ${days === 1 ? '1 day' : `${String(days)} days`} of two weeks ${days === 1 ? 'has' : 'have'} openings.`,
        at: 'relaxations',
      });
  }
  const shortest = Math.min(...times.durations);
  const seated = new Set(times.lineUp.flatMap((seat) => seat.hostIds));
  const asked = calendars.filter((calendar) => calendar.isAsked && calendar.for.some((host) => seated.has(host)));
  const unreachable = asked.filter((calendar) => calendar.unreachableSince !== null);
  const asksNumber = form.placeKind === 'phone' && (details?.place.hostsRing ?? true);
  const needed = (form.questions ?? []).filter((question) => question.isNeeded).length + (asksNumber ? 1 : 0);
  const missing = missingPlace(form.placeKind, form.place, details?.place.hostsRing ?? true);
  points.push(
    missing !== undefined && { words: missing, at: 'place' },
    shortest > LONG_TALK &&
      times.places === 1 && {
        words: `The shortest takes ${lengthOf(shortest)}; a shorter first one is taken more readily.`,
        at: 'add-duration',
      },
    needed > MANY_QUESTIONS && {
      words: `${String(needed)} questions need an answer; each of them costs guests.`,
      at: 'questions',
    },
    form.post?.reminders.length === 0 &&
      form.post.toGuests !== 'none' && { words: 'Nobody is reminded, so more guests will forget.', at: 'reminders' },
    !hasPicture && { words: 'No picture shows guests where they come to.', at: 'page-picture' },
    form.description.trim() === '' && {
      words: 'Nothing says what happens there, or what to bring.',
      at: 'description',
    },
    form.placeKind === 'inPerson' &&
      details?.face.placeZoneOnly !== true && {
        words: 'Guests elsewhere may read the time of a place in their own zone.',
        at: 'place-zone-only',
      },
    ...unreachable.map((calendar) => ({
      words: `The calendar “${calendar.name}” can’t be reached.`,
      at: '/work/calendars',
    })),
    ...asked.flatMap((calendar) =>
      calendar.unread.slice(0, FEW_UNREAD).map((event) => ({
        words: `“${event.title}” in the calendar “${calendar.name}” ${event.isPartly ? 'is read only in part' : 'is not read'}: ${event.fault}`,
        at: '/work/calendars',
      })),
    ),
    ...guestNames.map((name) => ({
      words: `“${name}” is the name of a guest, and everybody can read it here.`,
      at: controlOf(form, name),
    })),
  );
  return points.filter((point) => point !== false);
}

/** The control at which a name was typed. */
function controlOf(form: PageForm, name: string): string {
  const has = (words: string | undefined): boolean => words?.toLowerCase().includes(name.toLowerCase()) === true;
  if (has(form.title)) return 'title';
  if (has(form.description)) return 'description';
  if (has(form.place)) return 'place';
  if (has(form.details?.place.directions)) return 'directions';
  return has(form.details?.after.words) ? 'after-words' : 'questions';
}

/** All that everybody can read of a page. */
export function publicWords(form: PageForm): string[] {
  return [
    form.title,
    form.description,
    form.place,
    form.details?.place.directions ?? '',
    form.details?.after.words ?? '',
    ...(form.questions ?? []).flatMap((question) => [question.words, question.hint, ...question.options]),
  ];
}
