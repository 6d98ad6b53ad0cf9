import { VIEW } from './answer';

/** A press on something that the app was not there yet to hear. */
export interface Press {
  /** Which of all that can be pressed, as a selector and a number. */
  of: string;
  at: number;
  /** What was chosen, of a list. */
  value?: string;
}

declare global {
  interface Window {
    /** What was pressed on the first view, in order. */
    lanternPresses?: Press[];
  }
}

const PRESSABLE = 'a, button, select, input';

/** Openings and weeks by what they are, since not all of them may be drawn; the rest by their place. */
function whichOf(view: HTMLElement, pressed: Element): Press {
  const { start, week } = (pressed as HTMLElement).dataset;
  const of =
    start !== undefined
      ? `[data-start="${start}"]`
      : week !== undefined
        ? `[data-week="${week}"]`
        : `:is(${PRESSABLE}):not([data-start], [data-week])`;
  return { of, at: [...view.querySelectorAll(of)].indexOf(pressed) };
}

/** Keeps what is pressed in the first view until the app comes. Links lead on by themselves. */
export function keepPresses(view: HTMLElement): void {
  const presses: Press[] = [];
  window.lanternPresses = presses;
  view.addEventListener('click', (event) => {
    const pressed = event.target instanceof Element ? event.target.closest('button') : null;
    if (!pressed) return;
    presses.push(whichOf(view, pressed));
    // It shows that it was heard.
    pressed.classList.add('outline-3', 'outline-ink');
  });
  view.addEventListener('change', (event) => {
    const { target } = event;
    if (target instanceof HTMLSelectElement) presses.push({ ...whichOf(view, target), value: target.value });
  });
}

/** Of openings and weeks only the last counts: the first view turns to no other week, so that both may be pressed. */
export function thatCount(presses: readonly Press[]): Press[] {
  const isTime = ({ of }: Press): boolean => of.startsWith('[data-');
  return presses.filter((press, at) => !isTime(press) || !presses.slice(at + 1).some(isTime));
}

/**
 * Takes the first view away. Nothing is drawn before the app's stands in its place, which is made in the same go.
 * @param settle Waits until the app has drawn what a press changed.
 * @returns What does in the app's, once that stands, what was done in the first view, which is drawn alike: presses in
 * their order, and the focus.
 */
export function leaveFirst(settle: () => Promise<void>): () => Promise<void> {
  const view = document.getElementById(VIEW);
  const { activeElement } = document;
  const focused = activeElement && view?.contains(activeElement) ? whichOf(view, activeElement) : undefined;
  view?.remove();
  return async () => {
    const which = ({ of, at }: Press): HTMLElement | undefined => [...document.querySelectorAll<HTMLElement>(of)][at];
    if (focused) which(focused)?.focus({ preventScroll: true });
    const presses = window.lanternPresses ?? [];
    delete window.lanternPresses;
    for (const press of thatCount(presses)) {
      const pressed = which(press);
      if (press.value !== undefined && pressed instanceof HTMLSelectElement) {
        pressed.value = press.value;
        pressed.dispatchEvent(new Event('change', { bubbles: true }));
      } else pressed?.click();
      await settle();
    }
  };
}
