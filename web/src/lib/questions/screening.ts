import type { Schemas } from '$lib/api/client';
import type { Question } from './kinds';

export type Rule = Schemas['ScreeningRule'];
export type Condition = Schemas['ScreenCondition'];

export const acts: { value: Rule['then']; name: string }[] = [
  { value: 'dontBook', name: 'don’t book; show' },
  { value: 'goElsewhere', name: 'go elsewhere instead' },
  { value: 'flag', name: 'book, and flag it for the team' },
];

/** The comparisons that make sense of a question's answers, the likeliest first. */
export function testsOf(question: Question): { value: Condition['test']; name: string }[] {
  const answered: { value: Condition['test']; name: string }[] = [
    { value: 'isAnswered', name: 'is answered' },
    { value: 'isNotAnswered', name: 'is not answered' },
  ];
  switch (question.kind) {
    case 'number':
      return [
        { value: 'over', name: 'is over' },
        { value: 'under', name: 'is under' },
        { value: 'is', name: 'is' },
        { value: 'isNot', name: 'is not' },
        ...answered,
      ];
    case 'date':
      return [
        { value: 'over', name: 'is after' },
        { value: 'under', name: 'is before' },
        { value: 'is', name: 'is' },
        ...answered,
      ];
    case 'oneOf':
    case 'yesNo':
    case 'short':
      return [{ value: 'is', name: 'is' }, { value: 'isNot', name: 'is not' }, ...answered];
    case 'someOf':
      return [{ value: 'is', name: 'has' }, { value: 'isNot', name: 'has not' }, ...answered];
    default:
      return answered;
  }
}

/** The answers that can be chosen among; undefined where they are typed. */
export function valuesOf(question: Question): string[] | undefined {
  if (question.kind === 'yesNo') return ['yes', 'no'];
  return question.kind === 'oneOf' || question.kind === 'someOf'
    ? question.options.filter((option) => option.trim() !== '')
    : undefined;
}

export function newRule(question: Question): Rule {
  return {
    if: [
      { key: question.key, test: testsOf(question)[0]?.value ?? 'isAnswered', value: valuesOf(question)?.[0] ?? '' },
    ],
    all: true,
    then: 'dontBook',
    words: '',
    address: '',
  };
}
