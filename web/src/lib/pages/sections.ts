import { counted, lengthOf } from '$lib/time/format';
import type { PageForm } from './form';
import { inWords } from './units';

/** A section of the editor: what it is called, and in a few words what is set there. */
export interface SectionLine {
  title: string;
  words: string;
}

const places = { inPerson: 'in person', phone: 'by phone', video: 'video', ownWords: 'own words' } as const;
const modes = { hosts: 'hosts’ hours', page: 'own hours', both: 'both hours' } as const;

/** By which a section is found on the screen. */
export function idOf(title: string): string {
  return `section-${title.toLowerCase().replace(/[^a-z]+/g, '-')}`;
}

/** All sections, in the order in which they stand. */
export function sectionsOf(form: PageForm, nameOf: (host: string) => string): SectionLine[] {
  const { times, details, changes, post } = form;
  const first = (id: string): string => nameOf(id).split(' ')[0] ?? '';
  const kept = Math.max(times.bufferBefore, times.bufferAfter);
  const limits = [
    ...(kept > 0 ? [`${String(kept)} min kept free`] : []),
    ...(times.dailyCap === null ? [] : [`${String(times.dailyCap)} a day`]),
    ...(times.weeklyCap === null ? [] : [`${String(times.weeklyCap)} a week`]),
    ...(times.places === 1 ? [] : [`${String(times.places)} places`]),
  ];
  const may = [...(changes?.mayMove === false ? [] : ['move']), ...(changes?.mayCancel === false ? [] : ['cancel'])];
  return [
    { title: 'Appointment', words: `${times.durations.map(lengthOf).join(', ')}, ${places[form.placeKind]}` },
    { title: 'Line-up', words: times.lineUp.map((seat) => seat.hostIds.map(first).join(' or ')).join(', ') },
    {
      title: 'Times',
      words: `${times.blocks ? 'office hours' : modes[times.hoursMode]}, ${times.notice === 0 ? 'no' : inWords(times.notice)} notice`,
    },
    { title: 'Limits', words: limits.length === 0 ? 'none' : limits.join(', ') },
    {
      title: 'Questions',
      words: form.questions?.length ? counted(form.questions.length, 'question', 'questions') : 'none',
    },
    {
      title: 'Screening',
      words: details?.screening.length ? counted(details.screening.length, 'rule', 'rules') : 'none',
    },
    {
      title: 'Afterwards',
      words: details?.after.goTo ? 'leads on' : details?.after.words ? 'own words' : 'the private link',
    },
    {
      title: 'Guests may',
      words: [form.approvalHours == null ? 'book at once' : 'ask', ...may].join(', '),
    },
    {
      title: 'Mail',
      words:
        post?.toGuests === 'none'
          ? 'no mail'
          : post?.reminders.length
            ? counted(post.reminders.length, 'reminder', 'reminders')
            : 'no reminders',
    },
  ];
}
