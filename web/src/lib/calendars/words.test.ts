import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { agoOf, outOfReach, sourceOf } from './words';

const now = '2026-12-08T09:00:00Z';
const zone = 'Europe/Copenhagen';

function calendar(more: Partial<Schemas['CalendarView']> = {}): Schemas['CalendarView'] {
  return {
    id: 'c',
    kind: 'account',
    hostId: 'h',
    hostName: 'Sunniva Dale',
    for: ['h'],
    name: 'Work',
    isAsked: true,
    tentativeCounts: true,
    source: 'calendar.yard.example',
    loadedAt: '2026-12-07T08:00:00Z',
    lookedAt: '2026-12-08T08:59:20Z',
    entries: 3,
    mayWrite: true,
    isWrittenTo: true,
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

describe('what is said of a calendar', () => {
  it('is where it is from and how fresh it is', () => {
    expect(sourceOf(calendar(), now, zone)).toBe('account at calendar.yard.example, 3 entries, looked at 40 s ago');
    expect(sourceOf(calendar({ kind: 'address', entries: 1, refreshSeconds: 7200 }), now, zone)).toBe(
      'address at calendar.yard.example, 1 entry, looked at 40 s ago, every 2 hours, as its publisher asks',
    );
    expect(sourceOf(calendar({ kind: 'builtIn', entries: 0 }), now, zone)).toBe(
      'everybody has one here, no entries yet',
    );
  });

  it('tells roughly how long ago', () => {
    expect(
      ['2026-12-08T08:59:50Z', '2026-12-08T08:30:00Z', '2026-12-08T01:00:00Z', '2026-12-01T09:00:00Z'].map((at) =>
        agoOf(at, now),
      ),
    ).toEqual(['just now', '30 min ago', '8 h ago', '7 days ago']);
  });

  it('says since when it is out of reach and what that means', () => {
    const lost = calendar({
      unreachableSince: '2026-12-08T08:10:00Z',
      fault: 'It does not answer.',
      closesAt: '2026-12-09T08:00:00Z',
    });
    expect(outOfReach(calendar(), now, zone)).toBe('');
    expect(outOfReach(lost, now, zone)).toMatch(
      /^Out of reach since 0?9:10.*\. It does not answer\. Its last known events count until .* at 0?9:00.*; then its openings close\./,
    );
    expect(outOfReach({ ...lost, closesAt: '2026-12-08T08:59:00Z' }, now, zone)).toContain('too old');
    expect(outOfReach({ ...lost, isAsked: false }, now, zone)).toContain('nothing depends on it');
  });
});
