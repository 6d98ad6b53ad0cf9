import type { Schemas } from '$lib/api/client';
import { inWords } from '$lib/pages/units';
import { mergePatch, type Json } from './mergePatch';

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

/** Where a change can be made that is no change of the form. */
export function elsewhere(relaxation: Relaxation, hasBlocks: boolean): { text: string; href: string } | undefined {
  if (relaxation.change) return undefined;
  if (relaxation.rule === 'hostDailyCapRaised' || relaxation.rule === 'hostWeeklyCapRaised')
    return { text: 'in Team', href: '/work/team' };
  return hasBlocks ? { text: 'on the board', href: '/work/board' } : { text: 'in Hours', href: '/work/hours' };
}

/** The form with a change of a rule taken over, as the server computed it. What is to be changed elsewhere is not. */
export function taken<Form extends { times: object; details?: { lead: number } | null }>(
  form: Form,
  relaxation: Relaxation,
): Form {
  const next = structuredClone(form);
  if (!relaxation.change) return next;
  next.times = mergePatch(next.times, relaxation.change as Json) as Form['times'];
  if (relaxation.rule === 'hostOptional' && next.details)
    next.details.lead = leadAfter(next.details.lead, relaxation.seat ?? 0);
  return next;
}

/** Who leads once a seat is taken out: the same as before, or else the first. */
export function leadAfter(lead: number, out: number): number {
  if (lead === out) return 0;
  return lead > out ? lead - 1 : lead;
}
