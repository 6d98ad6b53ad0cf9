import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { calendarsOf, choiceInWords, choose } from './calendars';

function calendar(id: string, more: Partial<Schemas['CalendarView']> = {}): Schemas['CalendarView'] {
  return {
    id,
    kind: 'account',
    hostId: 'h',
    hostName: 'Sunniva Dale',
    for: ['h'],
    name: id,
    isAsked: true,
    tentativeCounts: true,
    source: '',
    loadedAt: '',
    lookedAt: '',
    entries: 1,
    mayWrite: true,
    isWrittenTo: false,
    refreshSeconds: null,
    unreachableSince: null,
    fault: null,
    closesAt: null,
    unwritten: 0,
    writeFault: null,
    unread: [],
    ...more,
  };
}

const all = [
  calendar('Closures', { hostId: null, for: ['h', 'i'] }),
  calendar('Work', { isWrittenTo: true }),
  calendar('Club', { isAsked: false }),
  calendar('Other', { hostId: 'i', for: ['i'] }),
  calendar('Kept here', { kind: 'builtIn', entries: 0 }),
];
const own = calendarsOf('h', all);

describe('which calendars a page asks', () => {
  it('are those that count for its host, the team’s last', () =>
    expect(own.map((each) => each.id)).toEqual(['Work', 'Club', 'Kept here', 'Closures']));

  it('are the usual ones where nothing is chosen', () => {
    expect(choiceInWords(undefined, own)).toBe('asks “Work” and “Closures” and writes bookings to “Work”, as usual');
    expect(choose([], 'h', own, ['Closures', 'Work', 'Kept here'], 'Work')).toEqual([]);
  });

  it('are said where they differ', () => {
    const choices = choose([], 'h', own, ['Club'], 'Work');
    expect(choices).toEqual([{ hostId: 'h', asked: ['Club'], writtenTo: null }]);
    expect(choiceInWords(choices[0], own)).toBe(
      'asks “Club”, which is not the usual; writes bookings to “Work” as usual',
    );
    expect(choiceInWords({ hostId: 'h', asked: [], writtenTo: 'Kept here' }, own)).toBe(
      'asks no calendar, which is not the usual; writes bookings to no other calendar, which is not the usual',
    );
    expect(choose(choices, 'h', own, ['Work', 'Closures', 'Kept here'], null)).toEqual([]);
  });
});
