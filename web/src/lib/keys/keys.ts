/** As much of a press as tells whether it is meant for us. */
type Press = Pick<
  KeyboardEvent,
  'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'repeat' | 'isComposing' | 'defaultPrevented'
> & { target: unknown };

const TYPED =
  'input:not([type=checkbox]):not([type=radio]), textarea, select, [contenteditable=true], [role=textbox], [role=combobox]';

/** Whether keys are typed there, or do something of its own. */
function isTyping(target: unknown): boolean {
  return (target as { matches?: (css: string) => boolean } | null)?.matches?.(TYPED) ?? false;
}

/**
 * The key of ours that was pressed; undefined where it is the browser's, a screen reader's, or types something. That
 * some keyboards need Shift for one of them does not matter.
 */
export function ourKey(press: Press): string | undefined {
  if (press.defaultPrevented || press.ctrlKey || press.metaKey || press.altKey || press.isComposing) return undefined;
  if (press.repeat || isTyping(press.target)) return undefined;
  return ['/', '.', '?'].includes(press.key) ? press.key : undefined;
}

const shown = (element: HTMLElement): boolean => element.checkVisibility() && !element.matches(':disabled');

/** The main press of the screen, or of the dialog that stands over it. */
export function mainPress(): HTMLElement | undefined {
  const where = document.querySelector('dialog[open]') ?? document.querySelector('main');
  return [...(where?.querySelectorAll<HTMLElement>('[data-main]') ?? [])].find(shown);
}

/** What a row of a list is entered by. */
const ROW = 'main tbody tr, main [data-rows] > li';

/** Leads from one row of a list to the next or the one before it; whether it did. */
export function stepInList(event: KeyboardEvent): boolean {
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return false;
  if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey || event.defaultPrevented) return false;
  const at = event.target instanceof HTMLElement ? event.target : undefined;
  const row = at?.matches('a, button') ? at.closest(ROW) : null;
  if (!row) return false;
  const entries = [...document.querySelectorAll<HTMLElement>(ROW)].filter((one) => entryOf(one) !== undefined);
  const next = entries[entries.indexOf(row as HTMLElement) + (event.key === 'ArrowDown' ? 1 : -1)];
  const entry = next && entryOf(next);
  if (!entry) return false;
  entry.focus();
  entry.scrollIntoView({ block: 'nearest' });
  return true;
}

const entryOf = (row: HTMLElement): HTMLElement | undefined =>
  [...row.querySelectorAll<HTMLElement>('a[href]')].find(shown);
