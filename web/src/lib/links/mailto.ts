/** Longer addresses are cut off by some programs. */
export const MOST_OF_MAILTO = 1_900;

/** An address that opens a mail in the reader's own program (RFC 6068): lines end with CRLF, all of it is encoded. */
export function mailtoOf(to: readonly string[], subject: string, text: string): string {
  const body = encodeURIComponent(text.replaceAll(/\r?\n/g, '\r\n'));
  return `mailto:${to.map(encodeURIComponent).join(',')}?subject=${encodeURIComponent(subject)}&body=${body}`;
}
