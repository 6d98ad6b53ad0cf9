// Making one takes a phone a tenth of a second, so it is made where one is needed.
let made: Intl.Segmenter | undefined;

function clusters(text: string): Iterable<Intl.SegmentData> {
  made ??= new Intl.Segmenter();
  return made.segment(text);
}

/** Letters of the West, each a character by itself, and with nothing behind it that joins it. */
const PLAIN = /^[ -~\u00a1-\u02ff](?![^ -~\u00a1-\u02ff])/;

/** What people see as the first character of a text. */
export function firstCharacter(text: string): string {
  if (PLAIN.test(text)) return text.charAt(0);
  for (const { segment } of clusters(text)) return segment;
  return '';
}

/**
 * As much of a text as fits; what people see as one character is never cut in two.
 * @param most In UTF-16 code units, as the server counts.
 */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  let end = 0;
  for (const { segment } of clusters(text)) {
    if (end + segment.length > most) break;
    end += segment.length;
  }
  return text.slice(0, end);
}
