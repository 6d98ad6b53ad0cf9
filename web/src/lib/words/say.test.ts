import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { spokenIn } from './refusals';
import { guestLanguages, readersLanguage, say, sayList, speakWith } from './say.svelte';

describe('the language of a guest', () => {
  it('is the first of those they like that we have', () => {
    expect(readersLanguage(['nn-NO', 'da-DK', 'en'])).toBe('da');
    expect(readersLanguage(['de-AT', 'de'])).toBe('de');
    expect(readersLanguage(['ja-JP'])).toBe('en');
    expect(readersLanguage([])).toBe('en');
  });

  it('fills in what it is given, and nothing that a guest typed', () => {
    expect(say('form.reserve', { time: '09:00', day: '{time}' })).toBe('Reserve 09:00 on {time}');
    expect(say('booking.ask-names')).toBe('Ask {names}.');
  });
});

describe('names in a row', () => {
  beforeEach(() => {
    vi.stubGlobal('document', { documentElement: {} });
    vi.stubGlobal('navigator', { languages: [] });
  });
  afterEach(() => {
    speakWith('en', {});
    vi.unstubAllGlobals();
  });

  it.each(guestLanguages)('stand as the tables of browsers have them in %s', (language) => {
    speakWith(language, {});
    const tag = language === 'en' ? 'en-GB' : language;
    for (const last of ['Ben', 'Ines', 'Hilda', 'Hiero', 'Otto', 'Hortensia', 'Yves', '8 min', '11 min', '110 min']) {
      for (const type of ['conjunction', 'disjunction'] as const) {
        for (const names of [[], [last], ['Ann', last], ['Ann', 'Cem', 'Dag', last]]) {
          expect(sayList(names, type)).toBe(new Intl.ListFormat(tag, { type }).format(names));
        }
      }
    }
  });
});

describe('what the server refuses', () => {
  const table = {
    refusals: { over: { title: 'Vorbei.', detail: 'Nicht mehr.' }, bare: { title: 'Nein.' } },
    mends: { 'too-long': 'Höchstens {most} Zeichen.', durations: 'Eine von {durations}.' },
  };

  it('is said by its key, with its values', () => {
    expect(spokenIn(table, { title: 'Over.', detail: 'No more.', phrase: { key: 'over' } })).toMatchObject({
      title: 'Vorbei.',
      detail: 'Nicht mehr.',
    });
    const problem = {
      title: 'Mend.',
      errors: { name: ['Too long.', 'Odd.'], duration: ['30 or 60.'], other: ['As it came.'] },
      mends: {
        name: [{ key: 'too-long', values: { most: 120 } }, { key: 'unknown' }],
        duration: [{ key: 'durations', values: { durations: [30, 60] } }],
      },
    };
    expect(spokenIn(table, problem).errors).toEqual({
      name: ['Höchstens 120 Zeichen.', 'Odd.'],
      duration: ['Eine von 30, 60.'],
      other: ['As it came.'],
    });
  });

  it('keeps a team’s own words, and says no English where the table says nothing', () => {
    expect(
      spokenIn(table, { title: 'Over.', detail: 'Ring us.', ownWords: true, phrase: { key: 'over' } }).detail,
    ).toBe('Ring us.');
    expect(spokenIn(table, { title: 'No.', detail: 'Why.', phrase: { key: 'bare' } }).detail).toBeUndefined();
    expect(spokenIn(table, { title: 'New.', phrase: { key: 'newer' } }).title).toBe('New.');
  });
});
