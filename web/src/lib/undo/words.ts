import type { Schemas } from '$lib/api/client';

/** How long it can be taken back still, as 0:52 or 9:05; undefined once it can't. */
export function left(until: string, now: number): string | undefined {
  const seconds = Math.ceil((Date.parse(until) - now) / 1000);
  if (seconds <= 0) return undefined;
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}

/** What was done, in a sentence. */
export function said(act: Pick<Schemas['Undoable'], 'what' | 'more'>): string {
  const [first = 'Done', ...others] = act.what;
  const more = others.length + act.more;
  return more === 0 ? `${first}.` : `${first}, and ${more} more.`;
}

/** What its mail does. */
export function mailOf(mails: number): string {
  if (mails === 0) return '';
  return mails === 1 ? '1 mail waits.' : `${mails} mails wait.`;
}
