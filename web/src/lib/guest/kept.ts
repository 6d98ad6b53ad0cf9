/** What a guest has typed on a page. */
export interface Typed {
  name: string;
  email: string;
  answers: Record<string, string>;
}

const PREFIX = 'guest:';

function isTyped(value: unknown): value is Typed {
  if (typeof value !== 'object' || value === null) return false;
  const { name, email, answers } = value as Partial<Record<keyof Typed, unknown>>;
  return (
    typeof name === 'string' &&
    typeof email === 'string' &&
    typeof answers === 'object' &&
    answers !== null &&
    Object.values(answers).every((answer) => typeof answer === 'string')
  );
}

/** What was typed on a page in this tab before it was loaded anew. It never leaves the browser. */
export function keptOf(page: string, store: Pick<Storage, 'getItem'> = sessionStorage): Typed | undefined {
  try {
    const value: unknown = JSON.parse(store.getItem(PREFIX + page) ?? 'null');
    return isTyped(value) ? value : undefined;
  } catch {
    // A browser may keep nothing, or refuse.
    return undefined;
  }
}

/** The zone that was chosen on a page in this tab. */
export function keptZoneOf(page: string, store: Pick<Storage, 'getItem'> = sessionStorage): string | undefined {
  try {
    return store.getItem(`${PREFIX}zone:${page}`) ?? undefined;
  } catch {
    return undefined;
  }
}

export function keepZone(page: string, zone: string, store: Pick<Storage, 'setItem'> = sessionStorage): void {
  try {
    store.setItem(`${PREFIX}zone:${page}`, zone);
  } catch {
    // Then a reload shows the zone that the page opens in.
  }
}

export function keep(
  page: string,
  typed: Typed | undefined,
  store: Pick<Storage, 'setItem' | 'removeItem'> = sessionStorage,
): void {
  try {
    if (typed) store.setItem(PREFIX + page, JSON.stringify(typed));
    else store.removeItem(PREFIX + page);
  } catch {
    // Then a reload empties the form; nothing else hangs on it.
  }
}
