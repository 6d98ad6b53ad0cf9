import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { blocksBeyond } from './missingPlace';
import { checkUp, publicWords } from './checkup';
import { newForm } from './form';

const question = { kind: 'short' as const, hint: '', isNeeded: true, options: [], address: '' };

function form() {
  const made = newForm('Europe/Copenhagen', 'desk', 'anselm');
  made.description = 'A talk over the drawings.';
  made.placeKind = 'video';
  return made;
}

function supply(...openings: number[]): Schemas['SupplyAnswer'] {
  const days = openings.map((count, i) => ({
    date: `2026-12-${String(7 + i).padStart(2, '0')}`,
    openings: Array.from({ length: count }, () => ({ start: '2026-12-07T08:00:00Z', fromMinute: 540, toMinute: 570 })),
  }));
  return {
    now: '2026-12-07T07:00:00Z',
    zone: 'Europe/Copenhagen',
    duration: 30,
    today: '2026-12-07',
    total: openings.reduce((sum, count) => sum + count, 0),
    days,
    lastDate: '2027-01-04',
    empty: [],
    turns: [],
    worked: null,
    beyondHosts: 0,
  };
}

const wordsOf = (...args: Parameters<typeof checkUp>): string[] => checkUp(...args).map((point) => point.words);

describe('the check-up of a page', () => {
  it('finds nothing about a page that is well made', () =>
    expect(checkUp(form(), supply(3, 3, 3, 3), [], [])).toEqual([]));

  it('counts openings, and days where there are enough of them', () => {
    expect(wordsOf(form(), supply(2, 2), [], [])).toEqual(['Only 4 openings in two weeks.']);
    expect(wordsOf(form(), supply(9, 0, 9), [], [])).toEqual(['Only 2 days of two weeks have openings.']);
    expect(wordsOf(form(), supply(0, 0), [], [])).toEqual([]);
  });

  it('says what costs guests, and where to mend it', () => {
    const poor = form();
    poor.times.durations = [90, 120];
    poor.questions = Array.from({ length: 6 }, (_, i) => ({ ...question, key: `q${String(i)}`, words: 'Why?' }));
    poor.post!.reminders = [];
    poor.description = ' ';
    poor.placeKind = 'inPerson';
    expect(checkUp(poor, undefined, [], []).map((point) => point.at)).toEqual([
      'place',
      'add-duration',
      'questions',
      'reminders',
      'description',
      'place-zone-only',
    ]);
    expect(wordsOf(form(), undefined, [], [], false)).toEqual(['No picture shows guests where they come to.']);
    poor.details!.face.placeZoneOnly = true;
    expect(checkUp(poor, undefined, [], []).map((point) => point.at)).not.toContain('place-zone-only');
  });

  it('misses a place that guests have to know, and no other', () => {
    const placed = form();
    const at = (): string[] => checkUp(placed, undefined, [], []).map((point) => point.at);
    expect(at()).not.toContain('place');
    placed.placeKind = 'phone';
    expect(at()).not.toContain('place');
    placed.details!.place.hostsRing = false;
    expect(at()).toContain('place');
    placed.place = '+45 55 01 02 03';
    expect(at()).not.toContain('place');
  });

  it('tells of calendars of its own hosts that are asked and out of reach', () => {
    const calendar = {
      id: 'c',
      name: 'Work',
      isAsked: true,
      for: ['anselm'],
      unreachableSince: '2026-12-07T06:00:00Z',
      unread: [],
    } as unknown as Schemas['CalendarView'];
    expect(wordsOf(form(), undefined, [calendar], [])).toEqual(['The calendar “Work” can’t be reached.']);
    expect(
      wordsOf(
        form(),
        undefined,
        [
          { ...calendar, for: ['odile'] },
          { ...calendar, isAsked: false },
        ],
        [],
      ),
    ).toEqual([]);
  });

  it('tells of events of its calendars that are not read, or not wholly', () => {
    const event = { line: 4, title: 'Free lunch', fault: 'It names more times than are read.', isPartly: true };
    const calendar = {
      id: 'c',
      name: 'Work',
      isAsked: true,
      for: ['anselm'],
      unreachableSince: null,
      unread: [event, { ...event, isPartly: false }, event, event],
    } as unknown as Schemas['CalendarView'];
    const words = wordsOf(form(), undefined, [calendar], []);
    expect(words).toHaveLength(3);
    expect(words[0]).toBe(
      '“Free lunch” in the calendar “Work” is read only in part: It names more times than are read.',
    );
    expect(words[1]).toBe('“Free lunch” in the calendar “Work” is not read: It names more times than are read.');
  });

  it('finds guests by name where everybody can read them', () => {
    const named = form();
    named.title = 'Talk with Ottilie Wren';
    expect(publicWords(named)).toContain('Talk with Ottilie Wren');
    expect(checkUp(named, undefined, [], ['Ottilie Wren'])).toEqual([
      { words: '“Ottilie Wren” is the name of a guest, and everybody can read it here.', at: 'title' },
    ]);
    named.title = 'Talk';
    named.details!.after.words = 'Ask for Ottilie Wren.';
    expect(checkUp(named, undefined, [], ['Ottilie Wren'])[0]?.at).toBe('after-words');
  });
});

describe('office hours beyond the days that are offered', () => {
  it('are told with how many days would have them', () => {
    const form = newForm('Europe/Copenhagen', 'desk', 'host');
    const block = { start: '2026-12-08T09:00:00', length: 120, without: [] };
    const rule = 'FREQ=DAILY;UNTIL=20270208T235959';
    form.times.blocks = { whole: false, list: [{ ...block, rule }] };
    expect(blocksBeyond(form, '2026-12-07')).toEqual({ last: '2027-02-08', days: 63 });
    form.times.aheadDays = 63;
    expect(blocksBeyond(form, '2026-12-07')).toBeUndefined();
    form.times.blocks = null;
    expect(blocksBeyond({ ...form, times: { ...form.times, aheadDays: 1 } }, '2026-12-07')).toBeUndefined();
  });
});
