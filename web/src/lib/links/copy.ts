/**
 * Puts text on the clipboard in one go, plain and as HTML, so that pasting into a mail keeps its links.
 * @returns Whether the browser let it.
 */
export async function copyRich(text: string, html: string): Promise<boolean> {
  // A browser may refuse, or (without https) have no clipboard at all.
  const clipboard = navigator.clipboard as Clipboard | undefined;
  if (clipboard === undefined) return false;
  const parts = {
    'text/plain': new Blob([text], { type: 'text/plain' }),
    'text/html': new Blob([html], { type: 'text/html' }),
  };
  if (typeof ClipboardItem !== 'undefined') {
    const isRich = await clipboard.write([new ClipboardItem(parts)]).then(
      () => true,
      () => false,
    );
    if (isRich) return true;
  }
  return clipboard.writeText(text).then(
    () => true,
    () => false,
  );
}
