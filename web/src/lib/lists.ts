/** The same list with one of it a place further up or down. */
export function moved<T>(list: readonly T[], at: number, by: -1 | 1): T[] {
  const next = [...list];
  next.splice(at + by, 0, ...next.splice(at, 1));
  return next;
}
