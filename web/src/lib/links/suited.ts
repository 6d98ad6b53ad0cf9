import type { LinkForm } from './form';

type Guest = LinkForm['guests'][number];

/**
 * Whom to book a time for that suits one guest: all of those who come together, that one with the email they gave, or
 * that one alone.
 */
export function guestsToBook(guests: readonly Guest[], isTogether: boolean, sender: Guest): Guest[] {
  if (!isTogether || guests.length < 2) return [sender];
  const isSender = (guest: Guest): boolean =>
    guest.email === '' ? guest.name === sender.name : guest.email.toLowerCase() === sender.email.toLowerCase();
  const others = guests.filter((guest) => !isSender(guest));
  return [sender, ...others];
}
