import { expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { byReader } from './byReader';

const mail = (id: string, toName: string, toEmail: string): Schemas['PostRow'] =>
  ({ id, toName, toEmail }) as Schemas['PostRow'];

it('puts messages under whom they went to, whoever had the latest first', () => {
  const found = byReader([
    mail('3', 'Osric', 'osric@ash.example'),
    mail('2', 'Marit', 'marit@brackwater.example'),
    mail('1', 'O. Ash', 'Osric@ash.example'),
  ]);
  expect(found.map(({ reader, mails }) => [reader, mails.map((one) => one.id)])).toEqual([
    ['Osric', ['3', '1']],
    ['Marit', ['2']],
  ]);
});
