import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { parts } from '$lib/guest/days';
import { unreachable } from '$lib/api/problem';
import da from './da';
import de from './de';
import es from './es';
import fr from './fr';
import { serverPhrases } from './server';

const dictionaries: Record<string, Readonly<Record<string, string>>> = { de, fr, es, da };

function sources(folder: string, ending: RegExp): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => ending.test(file) && !file.includes('test') && !/(^|\/)(bin|obj)\//.test(file))
    .map((file) => readFileSync(join(folder, file), 'utf8'));
}

/** Every phrase that the front end says by name. */
function phrases(): Set<string> {
  const found = new Set<string>([...parts, 'yes', 'no', unreachable.title, unreachable.detail ?? '']);
  const literal = `'((?:[^'\\\\]|\\\\.)*)'`;
  for (const text of sources('src', /\.(svelte|ts)$/)) {
    for (const match of text.matchAll(new RegExp(`\\bsay\\(\\s*${literal}`, 'g'))) if (match[1]) found.add(match[1]);
    for (const match of text.matchAll(new RegExp(`\\b(?:sayCount|until)\\([^']*?${literal},\\s*${literal}`, 'g')))
      for (const phrase of match.slice(1)) found.add(phrase);
  }
  return found;
}

const marks = (phrase: string): string[] => [...phrase.matchAll(/\{\w+\}/g)].map((match) => match[0]).sort();

describe.each(Object.entries(dictionaries))('the words of guests in %s', (_, dictionary) => {
  it('has every phrase that is said, here and by the server', () => {
    expect([...phrases(), ...serverPhrases].filter((phrase) => !(phrase in dictionary))).toEqual([]);
  });

  it('has no phrase that nobody says', () => {
    const said = new Set<string>([
      ...phrases(),
      ...serverPhrases,
      'Something went wrong here.',
      'Try again. If it stays, tell whoever runs this site.',
    ]);
    expect(Object.keys(dictionary).filter((phrase) => !said.has(phrase))).toEqual([]);
  });

  it('fills in what the English phrase fills in', () => {
    for (const [phrase, words] of Object.entries(dictionary)) expect(marks(words), phrase).toEqual(marks(phrase));
  });
});

it('the server says what it is said to say', () => {
  const server = sources('../src', /\.cs$/).join('\n');
  expect(serverPhrases.filter((phrase) => !server.includes(phrase))).toEqual([]);
});
