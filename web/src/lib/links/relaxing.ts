import type { Schemas } from '$lib/api/client';
import { leadAfter } from '$lib/supply/relaxations';
import { plusDays, type LinkForm } from './form';

type Relaxation = Schemas['RelaxationView'];

/** Where a change is made that is no change of a link. */
export function elsewhereOfLink(relaxation: Relaxation): { text: string; href: string } | undefined {
  if (relaxation.rule === 'hostDailyCapRaised' || relaxation.rule === 'hostWeeklyCapRaised')
    return { text: 'in Team', href: '/work/team' };
  return relaxation.rule === 'hoursEarlier' || relaxation.rule === 'hoursLater'
    ? { text: 'in Hours', href: '/work/hours' }
    : undefined;
}

/** The form with a change of a rule taken over. What is to be changed elsewhere is not. */
export function takenByLink(form: LinkForm, relaxation: Relaxation): LinkForm {
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
      times.offer.until = plusDays(times.offer.until, to - (relaxation.from ?? 0));
      if (next.details.endsOn < times.offer.until) next.details.endsOn = times.offer.until;
      break;
    case 'seatOpened':
      times.lineUp[relaxation.seat ?? 0]?.hostIds.push(relaxation.hostId ?? '');
      break;
    case 'hostOptional':
      times.lineUp.splice(relaxation.seat ?? 0, 1);
      next.details.lead = leadAfter(next.details.lead, relaxation.seat ?? 0);
      break;
    default:
      break;
  }
  return next;
}
