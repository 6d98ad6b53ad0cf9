import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

interface Refusals {
  refusals: Record<string, { title?: string; detail?: string }>;
  mends: Record<string, string>;
}

const languages = ['en', 'de', 'fr', 'es', 'da'];
const read = (file: string): unknown => JSON.parse(readFileSync(join('../words', file), 'utf8'));
const screens = (language: string) => read(`screens/${language}.json`) as Record<string, string>;
const refusals = (language: string) => read(`refusals/${language}.json`) as Refusals;

function sources(folder: string, ending: RegExp): string {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => ending.test(file) && !file.includes('test') && !/(^|\/)(bin|obj)\//.test(file))
    .map((file) => readFileSync(join(folder, file), 'utf8'))
    .join('\n');
}

const values = (phrase: string): string[] => [...phrase.matchAll(/\{\w+\}/g)].map((match) => match[0]).sort();

/** Every phrase of a table that has titles and details, by a name. */
function phrases(table: Refusals): Record<string, string> {
  const all: Record<string, string> = Object.fromEntries(
    Object.entries(table.mends).map(([key, words]) => [`mend ${key}`, words]),
  );
  for (const [key, { title, detail }] of Object.entries(table.refusals)) {
    if (title !== undefined) all[`${key} title`] = title;
    if (detail !== undefined) all[`${key} detail`] = detail;
  }
  return all;
}

describe.each(languages.slice(1))('what guests read in %s', (language) => {
  it('has the phrases of screens, and fills in what the English ones fill in', () => {
    const english = screens('en');
    const spoken = screens(language);
    expect(Object.keys(spoken)).toEqual(Object.keys(english));
    for (const [key, words] of Object.entries(spoken)) expect(values(words), key).toEqual(values(english[key] ?? ''));
  });

  it('has the same refusals as the others, each of which the server says', () => {
    const english = phrases(refusals('en'));
    const spoken = phrases(refusals(language));
    expect(Object.keys(spoken)).toEqual(Object.keys(phrases(refusals('de'))));
    for (const [name, words] of Object.entries(spoken))
      expect(values(words), name).toEqual(values(english[name] ?? ''));
  });
});

it('screens and mails say every phrase of theirs', () => {
  const said =
    sources('src', /\.(svelte|ts)$/) + sources('../src/LooseLantern.Server/Features', /\.cs$/).replaceAll('"', "'");
  const unsaid = Object.keys(screens('en')).filter(
    (key) => !said.includes(`'${key.replace(/\.(one|other)$/, '')}'`) && !key.startsWith('part.'),
  );
  expect(unsaid).toEqual([]);
});

it('the server says every phrase of its table, and none besides', () => {
  const server = sources('../src/LooseLantern.Server', /\.cs$/);
  const { refusals: refused, mends } = refusals('en');
  const unsaid = [...Object.keys(refused), ...Object.keys(mends)].filter(
    (key) => !server.includes(`"${key}"`) && !server.includes(`NotFound("${key.replace('not-found.', '')}")`),
  );
  expect(unsaid).toEqual([]);

  const mended = [...server.matchAll(/(?:WithMend|AddMend|Phrase\.Of)\(\s*(?:Phrase\.Of\(\s*)?"([^"]+)"/g)].map(
    (m) => m[1] ?? '',
  );
  const codes = [...server.matchAll(/new Refusal\(\s*[\w.]+,\s*"([^"]+)"\s*(?:,\s*"([^"]+)")?\s*\)/g)].map(
    (m) => m[2] ?? m[1] ?? '',
  );
  const things = [...server.matchAll(/NotFound\("([^"]+)"\)/g)].map((m) => `not-found.${m[1]}`);
  expect(mended.length * codes.length * things.length).toBeGreaterThan(0);
  expect(mended.filter((key) => !(key in mends) && !(key in refused))).toEqual([]);
  expect([...codes, ...things].filter((key) => !(key in refused))).toEqual([]);
});

it('what guests read is said by key', () => {
  const folders = ['guest', 'moving', 'questions'].map((folder) => `src/lib/${folder}`);
  const read = [...folders, 'src/routes/(guest)/booking', 'src/routes/(guest)/times', 'src/routes/(guest)/[desk]']
    .map((folder) => sources(folder, /(?<!Tried)\.(svelte|ts)$/))
    .join('\n')
    .replace(/\/\*[\s\S]*?\*\/|<!--[\s\S]*?-->|(^|\s)\/\/.*/g, '');
  expect(read.length).toBeGreaterThan(10_000);
  // A sentence between quotes, or between tags.
  expect(
    read.match(
      /'[A-Z][a-z’]+ [a-z][^'\n]*'|'[A-Z][^'\n]* [^'\n]* [^'\n]*[.?!]'|>\s*[A-Z][a-z’]+ [a-z’]+ [a-z][^<{]*</g,
    ) ?? [],
  ).toEqual([]);
});
