// Draws the guest's first view of what the first answer bears, before the app has come: the server does not know the
// reader's zone, and the app is large. It is a script of its own (vite.first.config.ts), and waits for nothing.
import { render } from 'svelte/server';
import { ownZone } from '$lib/time/clock';
import { setClock, writeQuickly } from '$lib/time/format';
import { countQuickly } from '$lib/time/offsets';
import * as quick from '$lib/time/quick/quick';
import { languageFor, speakWith } from '$lib/words/say.svelte';
import type { GuestSource } from '../source';
import { lastOf, openingsOf, readFirst, VIEW, type FirstAnswer } from './answer';
import FirstView from './FirstView.svelte';
import { keepPresses } from './presses';

/** Whether the tab was just opened, by a mail, say: a slow phone takes a while to look at what a tab kept. */
function isNewTab(): boolean {
  const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  return history.length === 1 && navigation?.type === 'navigate';
}

/** The source of what is drawn but never asked anything. */
function sourceOf({ path, page, link }: FirstAnswer): GuestSource | undefined {
  const never = (): Promise<never> => Promise.reject(new Error());
  const rest = {
    changes: '',
    isPreview: false,
    isNew: isNewTab(),
    openings: never,
    look: () => undefined,
    reserve: never,
  };
  const name = path.split('?')[0]?.slice(1) ?? '';
  if (page) return { ...rest, name, page };
  const isOpen = link?.state === 'out' || link?.state === 'opened';
  return link && isOpen && !link.asks ? { ...rest, name, page: link.page } : undefined;
}

/** Milliseconds after which all of it is drawn, where the app is long in coming. */
const PATIENCE = 1_500;

const WIDE = 768;
/** Pixels that a week of the strip takes. */
const WEEK = 113;
const MINUTE = 60_000;
const WEEKS_MINUTES = 7 * 1_440;

/**
 * How much of it fits on the screen, about: a slow phone shows that much sooner. The window's own width would have the
 * browser lay out the page before there is one.
 */
function inSight(): { days: number; weeks: number } {
  return { days: screen.width < WIDE ? 3 : 7, weeks: Math.ceil(screen.width / WEEK) + 1 };
}

const first = readFirst();
const view = document.getElementById(VIEW);
const source = first && sourceOf(first);
if (view && source && first.openings) {
  const language = languageFor(source.page.language);
  if (language === first.language) {
    // Nothing here waits for the browser's tables of languages and zones: of the reader's own zone each date knows.
    writeQuickly(quick);
    const own = ownZone();
    countQuickly((at, zone) => (zone === own ? -new Date(at).getTimezoneOffset() : undefined));
    speakWith(language, first.screens ? { screens: first.screens } : {});
    setClock(source.page.clock ?? undefined);
    const written = first.openings;
    const draw = (most?: { days: number; weeks: number }): void => {
      const until = most && Date.parse(source.page.firstDate) / MINUTE + (most.weeks + 1) * WEEKS_MINUTES;
      const props = { source, openings: openingsOf(written, until), last: lastOf(written), most };
      view.innerHTML = render(FirstView, { props }).body;
    };
    draw(inSight());
    keepPresses(view);
    // Mostly the app comes before anybody has scrolled so far.
    setTimeout(() => {
      if (view.isConnected && !document.activeElement?.closest(`#${VIEW}`)) draw();
    }, PATIENCE);
  }
}
