import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { groupsOf } from './results';

const me = { zone: 'Europe/Copenhagen', now: '2026-12-07T07:00:00Z', isCoordinator: true, isOwner: false };
const nothing: Schemas['FindAnswer'] = { now: me.now, guests: [], bookings: [], pages: [], links: [], hosts: [] };
const guest = { id: 'g', name: 'Osric Pell', email: 'osric@pell.example', zone: 'Europe/Dublin', language: 'en' };

describe('what is found', () => {
  it('stands in groups, and those without anything are left out', () => {
    const groups = groupsOf('osric', { ...nothing, guests: [guest] }, me);
    expect(groups.map((group) => group.name)).toEqual(['Guests']);
    expect(groups[0]?.found[0]?.acts.map((act) => act.name)).toEqual(['Bookings', 'New link', 'Write']);
    expect(groups[0]?.found[0]?.acts[1]?.way).toContain('email=osric%40pell.example&zone=Europe%2FDublin');
  });

  it('offers hosts only what they may do', () => {
    const groups = groupsOf('osric', { ...nothing, guests: [guest] }, { ...me, isCoordinator: false });
    expect(groups[0]?.found[0]?.acts.map((act) => act.name)).toEqual(['Bookings']);
  });

  it('leads to a day without any answer', () => {
    const [day] = groupsOf('8 dec', undefined, me);
    expect(day?.found[0]?.way).toBe('/work/board?from=2026-12-08&weeks=1');
  });

  it('has a key of its own for each of a group, whatever is typed', () => {
    for (const typed of 'abcdefghijklmnopqrstuvwxyz')
      for (const { found } of groupsOf(typed, nothing, { ...me, isOwner: true }))
        expect(new Set(found.map((one) => one.key)).size).toBe(found.length);
  });

  it('finds settings by what people call them, and owners’ for owners alone', () => {
    const titles = (typed: string, isOwner = false): string[] =>
      groupsOf(typed, nothing, { ...me, isOwner }).flatMap((group) => group.found.map((one) => one.title));
    expect(titles('pass')).toEqual(['Password and sign-ins']);
    expect(titles('how long')).toEqual([]);
    expect(titles('how long', true)).toEqual(['Retention']);
    expect(titles('new')[0]).toBe('New page');
  });
});
