/**
 * A length as somebody types it: "50", "90 min", "1 h 20", "1:20", "1.5 h". Undefined where it is none.
 * @returns Whole minutes.
 */
export function typedLength(text: string): number | undefined {
  const words = text.trim().toLowerCase().replace(',', '.');
  const plain = /^(\d+)\s*(?:m|min|mins|minutes?)?$/.exec(words);
  if (plain) return Number(plain[1]) || undefined;
  const clock =
    /^(\d+):([0-5]\d)$/.exec(words) ?? /^(\d+)\s*h(?:ours?|rs?)?\s*(\d+)\s*(?:m|min|mins|minutes?)?$/.exec(words);
  if (clock) return Number(clock[1]) * 60 + Number(clock[2]) || undefined;
  const hours = /^(\d+(?:\.\d+)?)\s*h(?:ours?|rs?)?$/.exec(words);
  return hours ? Math.round(Number(hours[1]) * 60) || undefined : undefined;
}
