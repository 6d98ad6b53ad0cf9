export type Copied = 'not yet' | 'copied' | 'refused';

/** Puts a text on the clipboard. A browser may refuse, or (without https) have no clipboard at all. */
export async function putOnClipboard(text: string): Promise<Copied> {
  const done = navigator.clipboard?.writeText(text).then(
    () => 'copied' as const,
    () => 'refused' as const,
  );
  return (await done) ?? 'refused';
}
