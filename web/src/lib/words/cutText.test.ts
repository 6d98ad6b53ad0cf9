import { expect, test } from 'vitest';
import { cutText, firstCharacter } from './cutText';

test.each([
  ['Tea', 3, 'Tea'],
  ['Teapot', 3, 'Tea'],
  ['Te\u{1f9ed}', 3, 'Te'],
  ['\u{1f468}\u200d\u{1f469}\u200d\u{1f467} tea', 8, '\u{1f468}\u200d\u{1f469}\u200d\u{1f467}'],
  ['e\u0301e\u0301', 3, 'e\u0301'],
])('of %j %i code units are %j', (text, most, cut) => {
  expect(cutText(text, most)).toBe(cut);
});

test.each([
  ['Åse', 'Å'],
  ['', ''],
  ['A\u030ase', 'A\u030a'],
  ['\u{1f9ed} desk', '\u{1f9ed}'],
  ['日本', '日'],
])('of %j people see %j first', (text, first) => expect(firstCharacter(text)).toBe(first));
