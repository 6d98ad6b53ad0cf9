import { setLocale } from '$lib/time/format';
import english from '$words/screens/en.json';
import type { Refusals } from './refusals';

export const guestLanguages = ['en', 'de', 'fr', 'es', 'da'] as const;
export type GuestLanguage = (typeof guestLanguages)[number];

/** The key of a phrase on screens that guests read. */
export type ScreenKey = keyof typeof english;
/** The key of a phrase that there is one of for each plural. */
export type CountKey = ScreenKey extends infer Key ? (Key extends `${infer Stem}.one` ? Stem : never) : never;

export type Values = Readonly<Record<string, string | number>>;
type Screens = Readonly<Record<ScreenKey, string>>;

const tables: Record<Exclude<GuestLanguage, 'en'>, () => Promise<[{ default: Screens }, { default: Refusals }]>> = {
  de: () => Promise.all([import('$words/screens/de.json'), import('$words/refusals/de.json')]),
  fr: () => Promise.all([import('$words/screens/fr.json'), import('$words/refusals/fr.json')]),
  es: () => Promise.all([import('$words/screens/es.json'), import('$words/refusals/es.json')]),
  da: () => Promise.all([import('$words/screens/da.json'), import('$words/refusals/da.json')]),
};

let screens = $state.raw<Screens>(english);
let spokenRefusals = $state.raw<Refusals | undefined>(undefined);
let spoken = $state.raw<GuestLanguage>('en');

/** Of the languages we have, the one that the reader likes best. */
export function readersLanguage(liked: readonly string[] = navigator.languages): GuestLanguage {
  return (
    liked
      .map((tag) => tag.split('-')[0])
      .find((language): language is GuestLanguage => guestLanguages.some((ours) => ours === language)) ?? 'en'
  );
}

/**
 * Speaks a language from now on; that of whoever reads where none is given. Dates follow it; the clock stays the
 * reader's, and so does the reader's own form of the language.
 */
export async function speak(asked: string): Promise<void> {
  const language = guestLanguages.find((ours) => ours === asked) ?? readersLanguage();
  // Words that can't be fetched are no reason to show nothing.
  const loaded = language === 'en' ? undefined : await tables[language]().catch(() => undefined);
  screens = loaded?.[0].default ?? english;
  spokenRefusals = loaded?.[1].default;
  spoken = language;
  document.documentElement.lang = language;
  setLocale(navigator.languages.find((tag) => tag === language || tag.startsWith(`${language}-`)) ?? language);
}

/** The language that is spoken. */
export function language(): GuestLanguage {
  return spoken;
}

/** What the server refuses, in the language that is spoken; undefined where that is English, which it says itself. */
export function refusals(): Refusals | undefined {
  return spokenRefusals;
}

/** Words with {values} filled in. */
export function filled(words: string, values: Readonly<Record<string, unknown>>): string {
  return words.replace(/\{(\w+)\}/g, (whole, name: string) => {
    const value = values[name];
    return value === undefined ? whole : Array.isArray(value) ? value.join(', ') : String(value);
  });
}

/** A phrase in the language that is spoken, with {values} filled in. */
export function say(key: ScreenKey, values: Values = {}): string {
  return filled(screens[key], values);
}

/** The phrase of a count, which stands in it as {n}. */
export function sayCount(n: number, key: CountKey): string {
  return say(new Intl.PluralRules(spoken).select(n) === 'one' ? `${key}.one` : `${key}.other`, {
    n: n.toLocaleString(spoken),
  });
}

/** Names in a row: "Ann, Ben or Cem". */
export function sayList(names: readonly string[], type: 'conjunction' | 'disjunction'): string {
  return new Intl.ListFormat(spoken === 'en' ? 'en-GB' : spoken, { type }).format(names);
}
