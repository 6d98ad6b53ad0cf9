const clusters = new Intl.Segmenter();

/** What people see as the first character of a text. */
export function firstCharacter(text: string): string {
  for (const { segment } of clusters.segment(text)) return segment;
  return '';
}

/**
 * As much of a text as fits; what people see as one character is never cut in two.
 * @param most In UTF-16 code units, as the server counts.
 */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  let end = 0;
  for (const { segment } of clusters.segment(text)) {
    if (end + segment.length > most) break;
    end += segment.length;
  }
  return text.slice(0, end);
}
