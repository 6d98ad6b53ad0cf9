import type { Schemas } from '$lib/api/client';

export type PageForm = Schemas['PageForm'];
export type Week = Schemas['WeekDocument'];
export type Hours = Schemas['HoursDocument'];

export const weekdays = [
  { key: 'mon', name: 'Monday', short: 'Mon' },
  { key: 'tue', name: 'Tuesday', short: 'Tue' },
  { key: 'wed', name: 'Wednesday', short: 'Wed' },
  { key: 'thu', name: 'Thursday', short: 'Thu' },
  { key: 'fri', name: 'Friday', short: 'Fri' },
  { key: 'sat', name: 'Saturday', short: 'Sat' },
  { key: 'sun', name: 'Sunday', short: 'Sun' },
] as const satisfies readonly { key: keyof Week; name: string; short: string }[];

function workday(): Schemas['OpenTimeDocument'][] {
  return [
    { from: '09:00', to: '12:00' },
    { from: '13:00', to: '17:00' },
  ];
}

export function usualHours(zone: string): Hours {
  return { zone, week: { mon: workday(), tue: workday(), wed: workday(), thu: workday(), fri: workday(), sat: [], sun: [] }, changes: [] };
}

/** Where a new page starts from. */
export function newForm(zone: string, deskId: string, hostId: string): PageForm {
  return {
    title: '',
    deskId,
    address: '',
    description: '',
    placeKind: 'inPerson',
    place: '',
    keepsHosts: false,
    times: {
      zone,
      lineUp: [{ hostIds: [hostId], fill: 'balanced' }],
      durations: [30],
      step: 30,
      stepOffset: 0,
      stepFrom: 'clock',
      bufferBefore: 0,
      bufferAfter: 0,
      notice: 240,
      aheadDays: 28,
      hoursMode: 'page',
      hours: usualHours(zone),
      dailyCap: null,
      weeklyCap: null,
      places: 1,
    },
  };
}

/** A line-up in words: "Ann", "Ann or Ben", "Ann, Cem, and Ben or Dag". */
export function lineUpInWords(seats: readonly (readonly string[])[]): string {
  const listed = (words: readonly string[], last: string): string => (words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')}${last}${words.at(-1) ?? ''}`);
  const pools = seats.map((hosts) => listed(hosts, ' or '));
  const isPlain = seats.every((hosts) => hosts.length === 1);
  return listed(pools, isPlain ? ' and ' : ', and ');
}

/** Hours in a line: "Mon–Thu 09:00–12:00, 13:00–17:00; Fri 09:00–12:00". */
export function hoursInWords(hours: Hours): string {
  const runs: { first: string; last: string; open: string }[] = [];
  for (const day of weekdays) {
    const open = hours.week[day.key].map((time) => `${time.from}–${time.to}`).join(', ');
    const run = runs.at(-1);
    if (run?.open === open) run.last = day.short;
    else runs.push({ first: day.short, last: day.short, open });
  }
  const words = runs
    .filter((run) => run.open !== '')
    .map((run) => `${run.first === run.last ? run.first : `${run.first}–${run.last}`} ${run.open}`)
    .join('; ');
  return words === '' ? 'never open' : words;
}
