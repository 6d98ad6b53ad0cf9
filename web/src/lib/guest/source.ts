import { api, guestApi, type Schemas } from '$lib/api/client';
import { must } from '$lib/api/problem';
import type { Part } from './days';

/** What became of a reservation. */
export type Reserved =
  | { kind: 'booked'; path: string; start: string; end: string; goTo: string | null }
  | { kind: 'tried'; tried: Schemas['TriedBooking'] };

interface Range {
  from: string;
  to: string;
  duration: string;
  /** IANA id of the reader's. */
  zone: string;
  /** How many people come; left out for one. */
  party?: string;
}

/** Who takes a time of a link. */
export interface Taker {
  /** The number of the guest, of several that are known; undefined for somebody else. */
  who: number | undefined;
  /** Whether it is somebody else than the one it names. */
  notMe: boolean;
}

/** Whom a link is for. */
export interface Known {
  /** By name, in the order of the link. */
  guests: readonly string[];
  /** The one guest's email, masked; empty where it is not known. */
  email: string;
  /** Whether who takes it is known without asking. */
  isOne: boolean;
  /** The start that was pressed in a mail; it is chosen, and never booked by itself. */
  at: string | undefined;
}

/** Where a guest's page gets its openings from and reserves them: the page as it is published, or as it would be. */
export interface GuestSource {
  /** What is typed is kept under this name in the tab. */
  readonly name: string;
  readonly page: Schemas['GuestPage'];
  /** Where changes are told of. */
  readonly changes: string;
  /** Whether nothing is reserved for real. */
  readonly isPreview: boolean;
  /** Whether nothing can have been kept of it in this tab, so that nobody looks. */
  readonly isNew?: boolean;
  /** Whom it is for, where that is known: nothing is asked then that is known. */
  readonly known?: Known;
  openings: (range: Range) => Promise<Schemas['OpeningsAnswer']>;
  /** Counts what was looked for; nothing of who looked. */
  look: (date: string, part: Part | undefined, found: boolean) => void;
  reserve: (body: Schemas['BookRequest'], key: string, taker: Taker) => Promise<Reserved>;
}

/**
 * A page as guests have it.
 * @param secret Of an address for one guest alone.
 */
export function publishedSource(
  path: { desk: string; page: string },
  page: Schemas['GuestPage'],
  secret?: string,
): GuestSource {
  const known = secret === undefined ? {} : { for: secret };
  return {
    name: `${path.desk}/${path.page}`,
    page,
    changes: `/api/public/desks/${encodeURIComponent(path.desk)}/pages/${encodeURIComponent(path.page)}/changes`,
    isPreview: false,
    openings: (query) =>
      must(
        guestApi.GET('/api/public/desks/{desk}/pages/{page}/openings', {
          params: { path, query: { ...query, ...known } },
        }),
      ),
    look: (date, part, found) =>
      void guestApi
        .POST('/api/public/desks/{desk}/pages/{page}/looks', {
          params: { path },
          body: { week: date, part: part ? part : null, found },
          keepalive: true,
        })
        .catch(() => undefined),
    reserve: async (body, key) => {
      const made = await must(
        guestApi.POST('/api/public/desks/{desk}/pages/{page}/bookings', {
          params: { path, header: { 'Idempotency-Key': key } },
          body: { ...body, address: secret ?? null },
        }),
      );
      return { kind: 'booked', path: made.path, start: made.start, end: made.end, goTo: made.goTo };
    },
  };
}

/** A page as it would be once all of it is published. */
export function previewSource(id: string, page: Schemas['GuestPage']): GuestSource {
  const path = { id };
  return {
    name: `preview/${id}`,
    page,
    changes: '/api/changes',
    isPreview: true,
    openings: (query) => must(api.GET('/api/pages/{id}/as-guest/openings', { params: { path, query } })),
    look: () => undefined,
    reserve: async (body) => ({
      kind: 'tried',
      tried: await must(api.POST('/api/pages/{id}/as-guest/bookings', { params: { path }, body })),
    }),
  };
}

/** An availability link. */
export function linkSource(address: string, link: Schemas['GuestLink'], at: string | undefined): GuestSource {
  const path = { address };
  return {
    name: `times/${address}`,
    page: link.page,
    changes: `/api/public/links/${encodeURIComponent(address)}/changes`,
    isPreview: false,
    known: { guests: link.guests, email: link.knownEmail, isOne: link.isForOne, at },
    openings: ({ from, to, duration, zone }) =>
      must(
        guestApi.GET('/api/public/links/{address}/openings', {
          params: { path, query: { from, to, duration, zone } },
        }),
      ),
    look: () => undefined,
    reserve: async ({ start, duration, zone, guest, answers, clock }, key, { who, notMe }) => {
      const body = {
        start,
        duration,
        zone,
        name: guest.name || null,
        email: guest.email || null,
        guest: who ?? null,
        answers: answers ?? null,
        clock: clock ?? null,
        notMe,
      };
      const made = await must(
        guestApi.POST('/api/public/links/{address}/bookings', {
          params: { path, header: { 'Idempotency-Key': key } },
          body,
        }),
      );
      return { kind: 'booked', path: made.path, start: made.start, end: made.end, goTo: made.goTo };
    },
  };
}
