/** Ways from what is wrong to where it is mended. Each mend stands beneath its control, in an element marked for it. */
const MEND = '[data-mend]';
const CONTROL =
  'input:not([type=hidden], :disabled), select:not(:disabled), textarea:not(:disabled), button:not(:disabled), [tabindex="-1"]';

/** What is in front of whoever reads: a dialog where one is open. */
function front(): ParentNode {
  return [...document.querySelectorAll('dialog[open], [role="dialog"]')].at(-1) ?? document;
}

/** The mends that are shown, from top to bottom. */
function shown(): HTMLElement[] {
  return [...front().querySelectorAll<HTMLElement>(MEND)];
}

/** The control that a mend stands beneath: the first one of the smallest part of the screen that has any before it. */
export function controlOf(mend: Element): HTMLElement | undefined {
  for (let part = mend.parentElement; part !== null && part !== document.body; part = part.parentElement) {
    const before = [...part.querySelectorAll<HTMLElement>(CONTROL)].find(
      (control) => (control.compareDocumentPosition(mend) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0,
    );
    if (before) return before;
  }
  return undefined;
}

function go(mend: HTMLElement): void {
  const control = controlOf(mend);
  mend.scrollIntoView({ block: 'center' });
  control?.focus({ preventScroll: true });
}

/** Whether a mend is shown at a control. */
export function isShown(words: string): boolean {
  return shown().some((mend) => mend.textContent.trim() === words);
}

/** Leads to the control that these words are the mend of. */
export function goTo(words: string): void {
  const mend = shown().find((one) => one.textContent.trim() === words);
  if (mend) go(mend);
}

/** Leads to the first control on screen that needs a mend. */
export function goToFirst(): void {
  const [first] = shown();
  if (first) go(first);
}
