import type { Schemas } from '$lib/api/client';

export type Question = Schemas['Question'];

export const questionKinds: { value: Question['kind']; name: string }[] = [
  { value: 'short', name: 'one line of text' },
  { value: 'long', name: 'several lines' },
  { value: 'number', name: 'a number' },
  { value: 'date', name: 'a date' },
  { value: 'email', name: 'an email address' },
  { value: 'web', name: 'a web address' },
  { value: 'phone', name: 'a phone number' },
  { value: 'oneOf', name: 'one of several' },
  { value: 'someOf', name: 'some of several' },
  { value: 'yesNo', name: 'yes or no' },
  { value: 'consent', name: 'agreement' },
  { value: 'others', name: 'who else is coming' },
];

export function hasOptions(kind: Question['kind']): boolean {
  return kind === 'oneOf' || kind === 'someOf';
}

/** A new question, named apart from those that are there. */
export function newQuestion(existing: readonly Question[]): Question {
  let number = existing.length + 1;
  while (existing.some((question) => question.key === `q${number}`)) number++;
  return { key: `q${number}`, kind: 'short', words: '', hint: '', isNeeded: false, options: [], address: '' };
}

/** The lines of an answer to some of several, with one of them put in or taken out. */
export function toggled(answer: string, option: string): string {
  const lines = answer.split('\n').filter((line) => line !== '');
  return (lines.includes(option) ? lines.filter((line) => line !== option) : [...lines, option]).join('\n');
}
