import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { barInWords, labelOf, leadOf, whatIsAt } from './bars';

const zone = 'Europe/Copenhagen';

function bar(
  kind: Schemas['BarKind'],
  from: number,
  to: number,
  more: Partial<Schemas['BoardBar']> = {},
): Schemas['BoardBar'] {
  const at = (minute: number): string => new Date(Date.UTC(2026, 11, 8, 0, minute - 60)).toISOString();
  return {
    kind,
    fromMinute: from,
    toMinute: to,
    start: at(from),
    end: at(to),
    title: '',
    source: '',
    wholeDay: false,
    tentative: false,
    mark: '',
    block: null,
    outside: null,
    linkId: null,
    path: null,
    ...more,
  };
}

describe('a bar in words', () => {
  it('says what, when and who says so', () => {
    expect(barInWords(bar('busy', 600, 660, { title: 'Dentist', source: 'Own calendar' }), zone)).toMatch(
      /^Dentist, busy, 10:00( AM)? to 11:00( AM)?, Own calendar$/,
    );
    expect(barInWords(bar('busy', 600, 660, { title: 'busy', source: 'Own', wholeDay: true }), zone)).toBe(
      'busy, whole day, Own',
    );
    expect(barInWords(bar('free', 600, 660, { title: 'Fair', tentative: true, wholeDay: true }), zone)).toBe(
      'Fair, marked free, tentative, whole day',
    );
  });

  it('bears its page’s mark', () => {
    expect(labelOf(bar('booked', 600, 660, { title: 'Ottilie Wren', mark: 'Hs' }))).toBe('Hs Ottilie Wren');
    expect(labelOf(bar('hours', 600, 660, { title: 'x' }))).toBe('');
  });
});

describe('what is at a minute', () => {
  const lane = [bar('hours', 540, 720, { source: 'Usual' }), bar('busy', 600, 660, { title: 'Dentist' })];
  it('is the event where one lies, and free within hours', () => {
    expect(whatIsAt(lane, 600, zone)).toContain('Dentist, busy');
    expect(whatIsAt(lane, 600, zone)).not.toContain('free');
    expect(whatIsAt(lane, 660, zone)).toContain('free, open hours');
    expect(whatIsAt(lane, 800, zone)).toBe('outside hours');
  });
});

describe('where a bar leads', () => {
  it('is where the topmost one does that leads anywhere', () => {
    const bars = [
      bar('hours', 540, 720),
      bar('held', 600, 660, { path: '/work/links/a' }),
      bar('booked', 630, 690, { path: '/work/bookings/b' }),
    ];
    expect(leadOf(bars, 610)).toBe('/work/links/a');
    expect(leadOf(bars, 640)).toBe('/work/bookings/b');
    expect(leadOf(bars, 700)).toBeUndefined();
  });
});
