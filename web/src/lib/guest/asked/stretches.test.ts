import { describe, expect, it } from 'vitest';
import {
  added,
  axisOf,
  changed,
  countOf,
  datesOf,
  inZone,
  keepStretches,
  keptStretches,
  removed,
  stretchesOf,
  takenOn,
  without,
} from './stretches';

const hours = (from: number, to: number) => ({ from: from * 60, to: to * 60 });
const week = { earliest: '2026-12-06T23:00:00Z', latest: '2026-12-11T23:00:00Z' };

describe('the days that are asked for', () => {
  it('are those on which something offered lies where the reader is, and none that is over', () => {
    const now = Date.parse('2026-12-08T07:00:00Z');
    expect(datesOf(week, 'Europe/Copenhagen', now)).toEqual(['2026-12-08', '2026-12-09', '2026-12-10', '2026-12-11']);
    // In Los Angeles the week begins and ends nine hours earlier.
    expect(datesOf(week, 'America/Los_Angeles', Date.parse('2026-12-01T00:00:00Z'))).toEqual([
      '2026-12-06',
      '2026-12-07',
      '2026-12-08',
      '2026-12-09',
      '2026-12-10',
      '2026-12-11',
    ]);
  });

  it('show the hours of the offer by the reader’s clock, and the whole day where they lie over midnight', () => {
    const asks = { from: '2026-12-07', fromMinute: 510, toMinute: 1080 };
    expect(axisOf(asks, 'Europe/Copenhagen', 'Europe/Copenhagen')).toEqual(hours(8, 18));
    expect(axisOf(asks, 'Europe/Copenhagen', 'Europe/Dublin')).toEqual(hours(7, 17));
    expect(axisOf(asks, 'Europe/Copenhagen', 'America/Los_Angeles')).toEqual(hours(0, 24));
    expect(axisOf({ ...asks, fromMinute: 0, toMinute: 1440 }, 'Europe/Copenhagen', 'Europe/Dublin')).toEqual(
      hours(0, 24),
    );
  });
});

describe('what is marked', () => {
  const taken = [hours(10, 11)];

  it('is joined where it touches, and leaves out what a calendar has taken', () => {
    let marked = added({}, '2026-12-08', hours(9, 12), taken);
    expect(marked['2026-12-08']).toEqual([hours(9, 10), hours(11, 12)]);
    marked = added(marked, '2026-12-08', hours(12, 13), []);
    expect(marked['2026-12-08']).toEqual([hours(9, 10), hours(11, 13)]);
    expect(countOf(marked)).toBe(2);
    expect(without([hours(10, 11)], taken)).toEqual([]);
    expect(without([hours(8, 10), hours(11, 12)], taken)).toEqual([hours(8, 10), hours(11, 12)]);
  });

  it('is removed, and carried to another day', () => {
    const marked = added(added({}, '2026-12-08', hours(9, 10), []), '2026-12-08', hours(14, 15), []);
    expect(removed(marked, '2026-12-08', 540)['2026-12-08']).toEqual([hours(14, 15)]);
    const carried = changed(
      marked,
      { date: '2026-12-08', from: 540 },
      { date: '2026-12-09', span: hours(9, 11) },
      taken,
    );
    expect(carried['2026-12-08']).toEqual([hours(14, 15)]);
    expect(carried['2026-12-09']).toEqual([hours(9, 10)]);
  });

  it('is sent as instants by start, and is the same time in another zone', () => {
    const marked = added(added({}, '2026-12-09', hours(6, 8), []), '2026-12-08', hours(9, 12), []);
    const stretches = stretchesOf(marked, 'Europe/Copenhagen');
    expect(stretches.map(({ start, end }) => [start, end])).toEqual([
      ['2026-12-08T08:00:00Z', '2026-12-08T11:00:00Z'],
      ['2026-12-09T05:00:00Z', '2026-12-09T07:00:00Z'],
    ]);
    const there = inZone(stretches, 'America/Los_Angeles');
    // Six in the morning in Copenhagen is nine in the evening before.
    expect(there['2026-12-08']).toEqual([hours(0, 3), hours(21, 23)]);
    expect(stretchesOf(there, 'America/Los_Angeles').map(({ start }) => start)).toEqual(
      stretches.map(({ start }) => start),
    );
  });

  it('is cut at midnight in another zone, and nothing of it is lost', () => {
    const there = inZone([{ start: '2026-12-08T07:00:00Z', end: '2026-12-08T09:00:00Z' }], 'America/Los_Angeles');
    expect(there).toEqual({ '2026-12-07': [hours(23, 24)], '2026-12-08': [hours(0, 1)] });
  });

  it('has none of the hour that a clock skips', () => {
    expect(stretchesOf({ '2027-03-28': [hours(2, 3)] }, 'Europe/Copenhagen')).toEqual([]);
  });

  it('is kept for as long as the tab is open, without what is over', () => {
    const kept = new Map<string, string>();
    const store = {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
    };
    const marked = { '2026-12-08': [hours(9, 10)], '2026-12-09': [hours(9, 10)] };
    keepStretches('a', stretchesOf(marked, 'UTC'), store);
    expect(keptStretches('a', Date.parse('2026-12-08T12:00:00Z'), store)).toEqual([
      { start: '2026-12-09T09:00:00Z', end: '2026-12-09T10:00:00Z' },
    ]);
    kept.set('guest:suits:b', '[{"start":"soon"}]');
    expect(keptStretches('b', Date.parse('2026-12-08T12:00:00Z'), store)).toEqual([]);
    kept.set('guest:suits:c', 'no JSON');
    expect(keptStretches('c', Date.parse('2026-12-08T12:00:00Z'), store)).toEqual([]);
  });
});

it('what a guest’s calendar has taken lies on its days', () => {
  const party = { from: Date.parse('2026-12-08T22:00:00Z'), to: Date.parse('2026-12-09T01:00:00Z'), title: 'Party' };
  expect(takenOn([party], '2026-12-08', 'Europe/Copenhagen')).toEqual([{ ...hours(23, 24), title: 'Party' }]);
  expect(takenOn([party], '2026-12-09', 'Europe/Copenhagen')).toEqual([{ ...hours(0, 2), title: 'Party' }]);
  expect(takenOn([party], '2026-12-10', 'Europe/Copenhagen')).toEqual([]);
});
