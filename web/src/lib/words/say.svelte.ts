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
/** The phrases of one language. */
export type Screens = Readonly<Record<ScreenKey, string>>;

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
 * Speaks a language from now on. Dates follow it; the clock stays the reader's, and so does the reader's own form of
 * the language.
 * @param words Its phrases and what the server refuses in it; none where it is English.
 */
export function speakWith(language: GuestLanguage, words: { screens?: Screens; refusals?: Refusals }): void {
  screens = words.screens ?? english;
  spokenRefusals = words.refusals;
  spoken = language;
  document.documentElement.lang = language;
  setLocale(navigator.languages.find((tag) => tag === language || tag.startsWith(`${language}-`)) ?? language);
}

/** The language that is asked for; that of whoever reads where it is none of ours. */
export function languageFor(asked: string): GuestLanguage {
  return guestLanguages.find((ours) => ours === asked) ?? readersLanguage();
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
  // Of our languages French alone counts nothing as one.
  const isOne = n === 1 || (n === 0 && spoken === 'fr');
  return say(isOne ? `${key}.one` : `${key}.other`, { n: n < 1_000 ? n : n.toLocaleString(spoken) });
}

const BETWEEN: Readonly<Record<GuestLanguage, readonly [and: string, or: string]>> = {
  en: ['and', 'or'],
  de: ['und', 'oder'],
  fr: ['et', 'ou'],
  es: ['y', 'o'],
  da: ['og', 'eller'],
};

/** Before the same sound Spanish takes another word. */
function between(word: string, next: string): string {
  if (word === 'y' && /^(i|hi(?![ae]))/i.test(next)) return 'e';
  return word === 'o' && /^(h?o|8|11( |$))/i.test(next) ? 'u' : word;
}

/** Names in a row: "Ann, Ben or Cem". */
export function sayList(names: readonly string[], type: 'conjunction' | 'disjunction'): string {
  const last = names.at(-1) ?? '';
  if (names.length < 2) return last;
  const [and, or] = BETWEEN[spoken];
  const word = spoken === 'es' ? between(type === 'conjunction' ? and : or, last) : type === 'conjunction' ? and : or;
  return `${names.slice(0, -1).join(', ')} ${word} ${last}`;
}
