import { describe, expect, it } from 'vitest';
import { bookingAt, openingAt, placeOf, stepFrom } from './moving';

const zone = 'Europe/Copenhagen';
const opening = (start: string, end: string): { start: string; end: string } => ({ start, end });
const nine = opening('2026-12-08T08:00:00Z', '2026-12-08T08:30:00Z');
const ten = opening('2026-12-08T09:00:00Z', '2026-12-08T09:30:00Z');
const next = opening('2026-12-09T08:00:00Z', '2026-12-09T08:30:00Z');

describe('a booking that is moved on the board', () => {
  it('lies by the wall clock of the board', () => {
    expect(placeOf(nine, zone)).toEqual({ date: '2026-12-08', from: 540, to: 570 });
    expect(placeOf(opening('2026-12-08T22:30:00Z', '2026-12-09T00:30:00Z'), zone)).toEqual({
      date: '2026-12-08',
      from: 1410,
      to: 1440,
    });
  });

  it('goes to the opening that is nearest to where it is dropped', () => {
    expect(openingAt([nine, ten, next], zone, '2026-12-08', 555)).toBe(nine);
    expect(openingAt([nine, ten, next], zone, '2026-12-08', 580)).toBe(ten);
    expect(openingAt([nine, ten, next], zone, '2026-12-09', 540)).toBe(next);
    expect(openingAt([nine, ten, next], zone, '2026-12-08', 700)).toBeUndefined();
  });

  it('steps from opening to opening, also over days', () => {
    expect(stepFrom([nine, ten, next], nine.start, 1)).toBe(ten);
    expect(stepFrom([nine, ten, next], ten.start, 1)).toBe(next);
    expect(stepFrom([nine, ten, next], '2026-12-08T08:30:00Z', -1)).toBe(nine);
    expect(stepFrom([nine, ten, next], next.start, 1)).toBeUndefined();
  });

  it('is told from sessions and links by where its bar leads', () => {
    expect(bookingAt('/work/bookings/01a23467-8d44-714f-b634-4ad75a954c80')).toBe(
      '01a23467-8d44-714f-b634-4ad75a954c80',
    );
    expect(bookingAt('/work/bookings/session/01a23467-8d44-714f-b634-4ad75a954c80')).toBeUndefined();
    expect(bookingAt('/work/links/01a23467-8d44-714f-b634-4ad75a954c80')).toBeUndefined();
  });
});
