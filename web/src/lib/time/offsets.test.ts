import { afterEach, describe, expect, it } from 'vitest';
import { shownIn } from '$lib/guest/days';
import { sameClock } from './clock';
import { dateIn, setClock, timeOf } from './format';
import { learnOffsets, zoneAt } from './offsets';
import { Temporal } from 'temporal-polyfill';

const CASABLANCA = 'Africa/Casablanca';
const AT = '2026-12-08T22:30:00Z';
const tell = (minutes: number): void =>
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
    expect(sameClock(CASABLANCA, zoneAt(AT, CASABLANCA), Temporal.Instant.from(AT))).toBe(true);
  });

  it('is the browser’s own where both agree, and before what was told', () => {
    tell(browsers);
    expect(zoneAt(AT, CASABLANCA)).toBe(CASABLANCA);
    tell(browsers + 60);
    expect(zoneAt('2026-11-08T22:30:00Z', CASABLANCA)).toBe(CASABLANCA);
  });

  it('is told apart from others, also behind UTC and by half hours', () => {
    learnOffsets([{ zone: CASABLANCA, runs: [{ from: '2026-12-01T00:00:00Z', minutes: -210 }] }]);
    expect(zoneAt(AT, CASABLANCA)).toBe('-03:30');
    expect(zoneAt(AT, 'Europe/Copenhagen')).toBe('Europe/Copenhagen');
  });
});
