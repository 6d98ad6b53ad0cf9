/** Of so many hosts each has a lane, unless they are chosen away; of more, only those who are chosen. */
export const MOST_LANES = 16;

/** How many of more hosts have one where nobody is chosen. */
const AT_FIRST = 8;

interface Chosen {
  /** Ids of the hosts who have a lane, in their order. */
  shown: string[];
  /** Whether there are too many to begin with all. */
  isMany: boolean;
}

/**
 * Whose lanes an address asks for: all but those it hides, or of many hosts those it shows; with none named whoever
 * reads and the first of the others.
 *
 * @param hosts in the order of their lanes
 * @param own the reader's own lane; null where they have none
 */
export function lanesIn(query: URLSearchParams, hosts: { id: string }[], own: string | null): Chosen {
  const isMany = hosts.length > MOST_LANES;
  if (!isMany) {
    const hidden = new Set(query.getAll('hide'));
    return { shown: hosts.filter((host) => !hidden.has(host.id)).map((host) => host.id), isMany };
  }
  const asked = new Set(query.getAll('show'));
  const shown = hosts.filter((host) => asked.has(host.id)).map((host) => host.id);
  if (shown.length > 0 || query.has('none')) return { shown, isMany };
  const others = hosts.filter((host) => host.id !== own);
  const first = new Set(others.slice(0, AT_FIRST - (hosts.length - others.length)));
  return {
    shown: hosts.filter((host) => host.id === own || first.has(host)).map((host) => host.id),
    isMany,
  };
}

/** Says in an address whose lanes are shown. */
export function putLanes(query: URLSearchParams, hosts: { id: string }[], shown: string[]): void {
  const chosen = new Set(shown);
  if (hosts.length > MOST_LANES) {
    if (shown.length === 0) query.set('none', '');
    for (const id of shown) query.append('show', id);
  } else for (const host of hosts) if (!chosen.has(host.id)) query.append('hide', host.id);
}
