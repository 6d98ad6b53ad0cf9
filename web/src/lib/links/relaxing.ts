import type { Schemas } from '$lib/api/client';
import { taken } from '$lib/supply/relaxations';
import type { LinkForm } from './form';

/** The form with a change of a rule taken over; a link that offers longer can be used as long. */
export function takenByLink(form: LinkForm, relaxation: Schemas['RelaxationView']): LinkForm {
  const next = taken(form, relaxation);
  if (next.details.endsOn < next.times.offer.until) next.details.endsOn = next.times.offer.until;
  return next;
}
