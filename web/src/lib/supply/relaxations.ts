import type { Schemas } from '$lib/api/client';
import type { PageForm } from '$lib/pages/form';
import { inWords } from '$lib/pages/units';
import { weekdays, type OpenTimes } from '$lib/hours/week';
import { minuteOf, minuteText } from '$lib/lanes/spans';

type Relaxation = Schemas['RelaxationView'];

/** What a change of a rule would be, in words. */
export function relaxationWords(relaxation: Relaxation): string {
  const { rule, host } = relaxation;
  const [from, to] = [relaxation.from ?? 0, relaxation.to ?? 0];
  const seat = `seat ${String((relaxation.seat ?? 0) + 1)}`;
  switch (rule) {
    case 'noticeHalved':
    case 'noticeDropped':
      return `${inWords(from)} notice → ${to === 0 ? 'none' : inWords(to)}`;
    case 'bufferBeforeHalved':
    case 'bufferBeforeDropped':
      return `${inWords(from)} before → ${to === 0 ? 'none' : inWords(to)}`;
    case 'bufferAfterHalved':
    case 'bufferAfterDropped':
      return `${inWords(from)} after → ${to === 0 ? 'none' : inWords(to)}`;
    case 'shorterDuration':
      return `${inWords(to)} instead of ${inWords(from)}`;
    case 'longerWindow':
      return `${String(to - from)} days further ahead`;
    case 'pageDailyCapRaised':
      return `${String(to)} a day instead of ${String(from)}`;
    case 'pageWeeklyCapRaised':
      return `${String(to)} a week instead of ${String(from)}`;
    case 'hostDailyCapRaised':
      return `${host ?? ''}: ${String(to)} a day instead of ${String(from)}`;
    case 'hostWeeklyCapRaised':
      return `${host ?? ''}: ${String(to)} a week instead of ${String(from)}`;
    case 'hoursEarlier':
      return 'Open an hour earlier';
    case 'hoursLater':
      return 'Open an hour longer';
    case 'seatOpened':
      return `Let ${host ?? ''} take ${seat} as well`;
    default:
      return `Do without ${host ?? ''} (${seat})`;
  }
}

/** Where a change can be made that is no change of this page. */
export function elsewhere(relaxation: Relaxation, form: PageForm): { text: string; href: string } | undefined {
  if (relaxation.rule === 'hostDailyCapRaised' || relaxation.rule === 'hostWeeklyCapRaised')
    return { text: 'in Team', href: '/work/team' };
  const isHours = relaxation.rule === 'hoursEarlier' || relaxation.rule === 'hoursLater';
  if (!isHours) return undefined;
  if (form.times.blocks) return { text: 'on the board', href: '/work/board' };
  return form.times.hoursMode === 'page' ? undefined : { text: 'in Hours', href: '/work/hours' };
}

/** A day's hours begun so much earlier and ended so much later, within the day; a closed day stays closed. */
function wider(day: OpenTimes, earlier: number, later: number): OpenTimes {
  const from = day.flatMap((open) => minuteOf(open.from) ?? []);
  const to = day.flatMap((open) => minuteOf(open.to) ?? []);
  if (from.length === 0 || to.length === 0) return day;
  const [first, last] = [Math.min(...from), Math.max(...to)];
  return day.map((open) => ({
    from: minuteOf(open.from) === first ? minuteText(Math.max(0, first - earlier)) : open.from,
    to: minuteOf(open.to) === last ? minuteText(Math.min(24 * 60, last + later)) : open.to,
  }));
}

function plusDays(date: string, days: number): string {
  return new Date(Date.parse(`${date}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
}

/** The form with a change of a rule taken over. What is to be changed elsewhere is not. */
export function taken(form: PageForm, relaxation: Relaxation): PageForm {
  const next = structuredClone(form);
  const { times } = next;
  const to = relaxation.to ?? 0;
  switch (relaxation.rule) {
    case 'noticeHalved':
    case 'noticeDropped':
      times.notice = to;
      break;
    case 'bufferBeforeHalved':
    case 'bufferBeforeDropped':
      times.bufferBefore = to;
      break;
    case 'bufferAfterHalved':
    case 'bufferAfterDropped':
      times.bufferAfter = to;
      break;
    case 'shorterDuration':
      times.durations = [...new Set(times.durations.map((minutes) => (minutes === relaxation.from ? to : minutes)))];
      break;
    case 'longerWindow':
      if (times.window?.kind === 'dates' && times.window.to)
        times.window = { ...times.window, to: plusDays(times.window.to, to - (relaxation.from ?? 0)) };
      else times.aheadDays = to;
      break;
    case 'pageDailyCapRaised':
      times.dailyCap = to;
      break;
    case 'pageWeeklyCapRaised':
      times.weeklyCap = to;
      break;
    case 'hoursEarlier':
    case 'hoursLater':
      if (times.hours && !elsewhere(relaxation, form)) {
        const [earlier, later] = relaxation.rule === 'hoursEarlier' ? [60, 0] : [0, 60];
        for (const { key } of weekdays) times.hours.week[key] = wider(times.hours.week[key], earlier, later);
        times.hours.changes = times.hours.changes.map((change) => ({
          ...change,
          open: wider(change.open, earlier, later),
        }));
      }
      break;
    case 'seatOpened':
      times.lineUp[relaxation.seat ?? 0]?.hostIds.push(relaxation.hostId ?? '');
      break;
    case 'hostOptional':
      times.lineUp.splice(relaxation.seat ?? 0, 1);
      if (next.details) next.details.lead = leadAfter(next.details.lead, relaxation.seat ?? 0);
      break;
  }
  return next;
}

/** Who leads once a seat is taken out: the same as before, or else the first. */
export function leadAfter(lead: number, out: number): number {
  if (lead === out) return 0;
  return lead > out ? lead - 1 : lead;
}
