import type { Schemas } from '$lib/api/client';
import { plusDays } from '$lib/time/dates';

/** How many days a link offers where nobody says. */
const USUAL_DAYS = 14;

export const usualUntil = (today: string): string => plusDays(today, USUAL_DAYS);

/** Blanks that what is offered fills in. */
const OF_OFFER = ['link', 'times', 'page', 'hosts', 'ends'];

export type Offer = Schemas['LetterOffer'];

/** What is chosen among all that can be offered, as one value of a list: kind and id. */
export function choiceOf(offer: Offer): string {
  return offer.kind === 'nothing' ? '' : `${offer.kind} ${offer.id ?? ''}`;
}

/** The offer that a choice stands for; what was set for another one is not kept. */
export function offerOf(choice: string, before: Offer): Offer {
  const [kind, id] = choice.split(' ');
  if ((kind !== 'pattern' && kind !== 'link' && kind !== 'page') || !id) return { kind: 'nothing', id: null };
  return kind === 'pattern' && before.kind === 'pattern' ? { ...before, id } : { kind, id };
}

/** A link from this pattern; of the one that was chosen, what was set for it stays. */
export function ofPattern(id: string, before: Offer, until: string): Offer {
  const next = offerOf(`pattern ${id}`, before);
  return { ...next, until: next.until ?? until };
}

/** All that can be offered, in groups by what it is. */
export function choices(all: Schemas['LetterChoices']): { value: string; name: string }[] {
  return [
    { value: '', name: 'nothing' },
    ...all.patterns.map((one) => ({ value: `pattern ${one.id}`, name: `a new link from “${one.name}”` })),
    ...all.links.map((one) => ({ value: `link ${one.id}`, name: `the link “${one.title}”` })),
    ...all.pages.map((one) => ({ value: `page ${one.id}`, name: `the page “${one.title}”, ${one.desk}` })),
  ];
}

/** What keeps a letter from being sent, in words; undefined where nothing does. */
export function obstacle(preview: Schemas['LetterPreview'], offer: Offer): string | undefined {
  const ofOffer = preview.unfilled.filter((name) => OF_OFFER.includes(name));
  if (offer.kind === 'nothing' && ofOffer.length > 0)
    return `Choose an offer, which fills in ${ofOffer.map((name) => `{{ ${name} }}`).join(', ')}.`;
  if (preview.unfilled.length > 0)
    return `Nothing is known for ${preview.unfilled.map((name) => `{{ ${name} }}`).join(', ')}.`;
  return preview.openings === 0 ? 'Nothing of this offer is open.' : undefined;
}
