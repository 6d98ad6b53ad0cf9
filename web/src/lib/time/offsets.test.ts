import { afterEach, describe, expect, it } from 'vitest';
import { shownIn } from '$lib/guest/days';
import { sameClock } from './clock';
import { dateIn, setClock, timeOf } from './format';
import { learnOffsets, minutesAt } from './offsets';
import { Temporal } from 'temporal-polyfill';

const CASABLANCA = 'Africa/Casablanca';
const AT = '2026-12-08T22:30:00Z';
const tell = (minutes: number): boolean =>
  learnOffsets([{ zone: CASABLANCA, runs: [{ from: '2026-12-01T00:00:00Z', minutes }] }]);
const browsers = Temporal.Instant.from(AT).toZonedDateTimeISO(CASABLANCA).offsetNanoseconds / 60_000_000_000;

describe('a zone of which browser and server have different tables', () => {
  afterEach(() => tell(browsers));

  it('is shown as the server counts it', () => {
    setClock('h24');
    tell(browsers + 60);
    const local = Temporal.Instant.from(AT)
      .add({ minutes: browsers + 60 })
      .toZonedDateTimeISO('UTC');
    expect(timeOf(AT, CASABLANCA)).toBe(local.toPlainTime().toString({ smallestUnit: 'minute' }));
    expect(dateIn(AT, CASABLANCA)).toBe(local.toPlainDate().toString());
    expect(shownIn(CASABLANCA, [{ start: AT, end: AT, placesLeft: 1 }])[0]?.date).toBe(local.toPlainDate().toString());
    expect(minutesAt(AT, CASABLANCA)).toBe(browsers + 60);
    expect(sameClock(CASABLANCA, CASABLANCA, AT)).toBe(true);
  });

  it('is the browser’s own where both agree, and before what was told', () => {
    tell(browsers);
    expect(minutesAt(AT, CASABLANCA)).toBe(browsers);
    tell(browsers + 60);
    expect(minutesAt('2026-11-08T22:30:00Z', CASABLANCA)).toBe(browsers);
  });

  it('is news where it is counted otherwise from then on, and else none', () => {
    expect(tell(browsers)).toBe(false);
    expect(tell(browsers + 60)).toBe(true);
    expect(tell(browsers)).toBe(true);
    expect(tell(browsers)).toBe(false);
  });

  it('is told apart from others, also behind UTC and by half hours', () => {
    learnOffsets([{ zone: CASABLANCA, runs: [{ from: '2026-12-01T00:00:00Z', minutes: -210 }] }]);
    expect(minutesAt(AT, CASABLANCA)).toBe(-210);
    expect(minutesAt(AT, 'Europe/Copenhagen')).toBe(60);
  });
});

describe('the minutes that a clock is ahead', () => {
  const zones = [
    'Europe/Copenhagen',
    'America/Halifax',
    'Australia/Lord_Howe',
    'Asia/Kathmandu',
    'Africa/Casablanca',
    'UTC',
  ];

  it.each(zones)('are those of the tables each half hour of a year in %s', (zone) => {
    for (let at = Date.UTC(2026, 0, 1); at < Date.UTC(2027, 0, 1); at += 1_800_000) {
      const instant = Temporal.Instant.fromEpochMilliseconds(at);
      const wanted = instant.toZonedDateTimeISO(zone).offsetNanoseconds / 60_000_000_000;
      if (minutesAt(at, zone) !== wanted) expect(`${String(at)} ${String(minutesAt(at, zone))}`).toBe(wanted);
    }
  });

  it('are of no zone that nobody knows', () => expect(() => minutesAt(AT, 'Harbour/Slip')).toThrow(RangeError));
});
