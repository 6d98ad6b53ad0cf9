import type { PageForm } from './form';

/** What parts of a page are called where its changes are listed. What is not named here goes by the part it lies in. */
const names: Record<string, string> = {
  title: 'title',
  deskId: 'desk',
  address: 'address',
  description: 'description',
  placeKind: 'kind of place',
  place: 'place',
  keepsHosts: 'same host again',
  'times.zone': 'time zone',
  'times.lineUp': 'line-up',
  'times.durations': 'durations',
  'times.step': 'start grid',
  'times.stepOffset': 'start grid',
  'times.stepFrom': 'start grid',
  'times.bufferBefore': 'buffer before',
  'times.bufferAfter': 'buffer after',
  'times.notice': 'notice',
  'times.aheadDays': 'booking window',
  'times.window': 'booking window',
  'times.hoursMode': 'whose hours count',
  'times.hours': 'hours',
  'times.hoursOf': 'whose hours it follows',
  'times.dailyCap': 'daily cap',
  'times.weeklyCap': 'weekly cap',
  'times.places': 'places',
  'times.blocks': 'office hours',
  'times.calendars': 'calendars',
  'details.naming': 'name among ourselves',
  'details.naming.kind': 'kind',
  'details.naming.mark': 'mark',
  'details.face': 'look',
  'details.face.placeZoneOnly': 'zones shown',
  'details.face.isListed': 'place on the desk',
  'details.face.language': 'language',
  'details.face.accent': 'accent',
  'details.place': 'place',
  'details.after': 'words afterwards',
  'details.lead': 'lead',
  'details.alsoInvited': 'also invited',
  'details.mostOpen': 'bookings of one guest',
  'details.forOthers': 'booking for someone else',
  'details.screening': 'screening',
  'details.keepers': 'keepers by answer',
  changes: 'what guests may do',
  post: 'mail',
  'post.reminders': 'reminders',
  approvalHours: 'approval',
  questions: 'questions',
};

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** The paths of all that differs between two forms; lists are compared whole. */
export function changedPaths(one: unknown, other: unknown, path = ''): string[] {
  if (isObject(one) && isObject(other)) {
    const keys = [...new Set([...Object.keys(one), ...Object.keys(other)])];
    return keys.flatMap((key) =>
      changedPaths(one[key] ?? null, other[key] ?? null, path === '' ? key : `${path}.${key}`),
    );
  }
  return JSON.stringify(one) === JSON.stringify(other) ? [] : [path];
}

function nameOf(path: string): string {
  const parts = path.split('.');
  for (let length = parts.length; length > 0; length--) {
    const name = names[parts.slice(0, length).join('.')];
    if (name !== undefined) return name;
  }
  return path;
}

/** What differs between two states of a page, in words, each part once. */
export function changedParts(one: PageForm, other: PageForm): string[] {
  return [...new Set(changedPaths(one, other).map(nameOf))];
}
