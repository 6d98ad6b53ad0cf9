import type { Schemas } from '$lib/api/client';

/** Stands in the choice of whose calendar it is for one of the whole team. */
export const TEAM = 'team';

/** What is chosen of whose a calendar is. */
export interface Whose {
  hostId: string;
  /** Whom one of the whole team counts for. */
  hostIds: string[];
}

export function ownersOf(whose: Whose): Schemas['CalendarOwners'] {
  return whose.hostId === TEAM ? { hostId: null, hostIds: whose.hostIds } : { hostId: whose.hostId, hostIds: null };
}
