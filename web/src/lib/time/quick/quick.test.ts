import { afterEach, describe, expect, it, vi } from 'vitest';
import { quickCounts12, quickWriter } from './quick';
import tables from './tables.json';

const tags = Object.keys(tables.tags);
const DATES: Record<string, Intl.DateTimeFormatOptions> = {
  longDate: { weekday: 'long', day: 'numeric', month: 'long' },
  fullDate: { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' },
  dayMonth: { day: 'numeric', month: 'short' },
  shortDate: { weekday: 'short', day: 'numeric', month: 'short' },
  shortWeekday: { weekday: 'short' },
  weekday: { weekday: 'long' },
  monthName: { month: 'long' },
  monthYear: { month: 'long', year: 'numeric' },
};

afterEach(() => vi.unstubAllGlobals());

describe.each(tags)('what is written quickly in %s', (tag) => {
  it('has the dates of a year as a browser writes them', () => {
    for (const [name, options] of Object.entries(DATES)) {
      const browsers = new Intl.DateTimeFormat(tag, { ...options, timeZone: 'UTC' });
      for (let day = 1; day <= 366; day++) {
        const at = Date.UTC(2028, 0, day);
        expect(quickWriter(name, tag)?.format(at)).toBe(browsers.format(at));
      }
    }
  });

  it('has the times of a day as a browser writes them, by either clock', () => {
    vi.stubGlobal('navigator', { language: tag });
    const counts12 = new Intl.DateTimeFormat(tag, { hour: 'numeric' }).resolvedOptions().hour12;
    expect(quickCounts12()).toBe(counts12);
    for (const hour12 of [undefined, true, false]) {
      const browsers = new Intl.DateTimeFormat(tag, {
        hour: (hour12 ?? counts12) ? 'numeric' : '2-digit',
        minute: '2-digit',
        ...(hour12 === undefined ? {} : { hourCycle: hour12 ? 'h12' : 'h23' }),
        timeZone: 'UTC',
      });
      for (let minute = 0; minute < 1_440; minute += 7) {
        const at = Date.UTC(2028, 0, 3, 0, minute);
        expect(quickWriter(`time ${String(hour12)}`, undefined)?.format(at)).toBe(browsers.format(at));
      }
    }
  });
});

it('is nothing in a language that the tables do not know', () => {
  vi.stubGlobal('navigator', { language: 'pt-BR' });
  expect(quickWriter('longDate', 'pt-BR')).toBeUndefined();
  expect(quickWriter('time undefined', undefined)).toBeUndefined();
  expect(quickCounts12()).toBeUndefined();
});
