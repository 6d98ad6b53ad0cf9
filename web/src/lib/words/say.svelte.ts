import { setLocale } from '$lib/time/format';

export const guestLanguages = ['en', 'de', 'fr', 'es', 'da'] as const;
export type GuestLanguage = (typeof guestLanguages)[number];

type Dictionary = Readonly<Record<string, string>>;

const dictionaries: Record<Exclude<GuestLanguage, 'en'>, () => Promise<{ default: Dictionary }>> = {
  de: () => import('./de'),
  fr: () => import('./fr'),
  es: () => import('./es'),
  da: () => import('./da'),
};

let dictionary = $state.raw<Dictionary>({});
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
  const words =
    language === 'en'
      ? {}
      : await dictionaries[language]().then(
          (loaded) => loaded.default,
          () => ({}),
        );
  dictionary = words;
  spoken = language;
  document.documentElement.lang = language;
  setLocale(navigator.languages.find((tag) => tag === language || tag.startsWith(`${language}-`)) ?? language);
}

/** The language that is spoken. */
export function language(): GuestLanguage {
  return spoken;
}

function filled(phrase: string, values: Readonly<Record<string, string | number>>): string {
  return phrase.replace(/\{(\w+)\}/g, (mark, name: string) => String(values[name] ?? mark));
}

/** An English phrase in the language that is spoken, with {values} filled in. */
export function say(phrase: string, values: Readonly<Record<string, string | number>> = {}): string {
  return filled(dictionary[phrase] ?? phrase, values);
}

/** One of two phrases by a count, which stands in them as {n}. */
export function sayCount(n: number, one: string, many: string): string {
  return say(new Intl.PluralRules(spoken).select(n) === 'one' ? one : many, { n: n.toLocaleString(spoken) });
}

/** Names in a row: "Ann, Ben or Cem". */
export function sayList(names: readonly string[], type: 'conjunction' | 'disjunction'): string {
  return new Intl.ListFormat(spoken === 'en' ? 'en-GB' : spoken, { type }).format(names);
}
