import type { Schemas } from '$lib/api/client';
import { cityOf } from '$lib/time/clock';
import { languageName, valueInWords } from './filter';

type Detail = Schemas['GuestDetail'];

/** A fact of two guests who may be one: what each has, by the name that the server calls it. */
export interface Compared {
  name: string;
  words: string;
  kept: string;
  other: string;
}

/** The facts in which two guests differ, or of which only one is known. */
export function compare(kept: Detail, other: Detail, fields: readonly Schemas['GuestFieldView'][]): Compared[] {
  const zone = (guest: Detail): string => (guest.zone ? cityOf(guest.zone) : '');
  const language = (guest: Detail): string => (guest.language ? languageName(guest.language) : '');
  const clock = (guest: Detail): string => (guest.clock ? (guest.clock === 'h12' ? '12-hour' : '24-hour') : '');
  const all: Compared[] = [
    { name: 'name', words: 'Name', kept: kept.name, other: other.name },
    { name: 'organisation', words: 'Organisation', kept: kept.organisation, other: other.organisation },
    { name: 'phone', words: 'Phone', kept: kept.phone, other: other.phone },
    { name: 'zone', words: 'Time zone', kept: zone(kept), other: zone(other) },
    { name: 'language', words: 'Language', kept: language(kept), other: language(other) },
    { name: 'clock', words: 'Clock', kept: clock(kept), other: clock(other) },
    { name: 'keeper', words: 'Keeper', kept: kept.keeperName, other: other.keeperName },
    ...fields.map((field) => ({
      name: field.id,
      words: field.name,
      kept: valueOf(kept, field),
      other: valueOf(other, field),
    })),
  ];
  return all.filter((fact) => fact.kept !== fact.other);
}

function valueOf(guest: Detail, field: Schemas['GuestFieldView']): string {
  const value = guest.fields[field.id];
  return value === undefined ? '' : valueInWords(field.kind, value);
}

/** What the other one brings along, in words. */
export function brings(other: Detail): string {
  const parts = [
    counted(other.emails.length, 'email'),
    counted(other.bookings, 'booking'),
    counted(other.offers, 'link'),
    counted(other.notes, 'note'),
  ].filter((part) => part !== '');
  return parts.length === 0 ? 'nothing else' : parts.join(', ');
}

function counted(count: number, what: string): string {
  return count === 0 ? '' : `${count} ${what}${count === 1 ? '' : 's'}`;
}
