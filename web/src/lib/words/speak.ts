import type { Refusals } from './refusals';
import { languageFor, speakWith, type GuestLanguage, type Screens } from './say.svelte';

const tables: Record<Exclude<GuestLanguage, 'en'>, () => Promise<[{ default: Screens }, { default: Refusals }]>> = {
  de: () => Promise.all([import('$words/screens/de.json'), import('$words/refusals/de.json')]),
  fr: () => Promise.all([import('$words/screens/fr.json'), import('$words/refusals/fr.json')]),
  es: () => Promise.all([import('$words/screens/es.json'), import('$words/refusals/es.json')]),
  da: () => Promise.all([import('$words/screens/da.json'), import('$words/refusals/da.json')]),
};

/**
 * Speaks a language from now on; that of whoever reads where none of ours is given.
 * @param known Its phrases, where they came already: what the server refuses then follows by itself.
 */
export async function speak(asked: string, known?: { language: string; screens: Screens | null }): Promise<void> {
  const language = languageFor(asked);
  if (language !== 'en' && known?.screens && known.language === language) {
    const { screens } = known;
    speakWith(language, { screens });
    void tables[language]()
      .then(([, refusals]) => speakWith(language, { screens, refusals: refusals.default }))
      .catch(() => undefined);
    return;
  }
  // Words that can't be fetched are no reason to show nothing.
  const loaded = language === 'en' ? undefined : await tables[language]().catch(() => undefined);
  speakWith(language, loaded ? { screens: loaded[0].default, refusals: loaded[1].default } : {});
}
