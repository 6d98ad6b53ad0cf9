import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { obstacleOf, standingInWords, supplyInWords, withAdded } from './mailing';

const letter = (unfilled: string[] = [], openings: number | null = 9): Schemas['MailingLetter'] => ({
  guestId: null,
  subject: '',
  unfilled,
  openings,
  offersOut: 0,
  zone: 'Europe/Copenhagen',
  language: 'en',
});

const preview = (openings: number | null, room: number | null, people: number): Schemas['MailingPreview'] => ({
  openings,
  room,
  letters: Array.from({ length: people }, () => letter([], openings)),
  shown: null,
});

const row: Schemas['MailingRow'] = {
  id: '',
  title: 'Hull survey',
  startedFrom: '',
  madeBy: 'Marit',
  sentAt: '2026-12-07T08:00:00Z',
  askedAgainAt: null,
  sent: 5,
  booked: 3,
  answered: 0,
  silent: 2,
  failed: 0,
  over: 0,
  timesLeft: 4,
  zone: 'Europe/Copenhagen',
};

describe('a mailing', () => {
  it('tells how its guests stand in one line', () => {
    expect(standingInWords(row)).toBe('5 sent, 3 booked, 2 silent, 4 times left');
    expect(standingInWords({ ...row, booked: 0, silent: 0, answered: 1, over: 4, timesLeft: null })).toBe(
      '5 sent, 0 booked, 1 answered, 4 over',
    );
  });

  it('says openings against guests, and where they are too few', () => {
    expect(supplyInWords(preview(9, 9, 5))).toBe('9 openings for 5 people.');
    expect(supplyInWords(preview(9, 4, 14))).toBe('9 openings for 14 people. They overlap: 4 of 14 people can book.');
    expect(supplyInWords(preview(3, 3, 14))).toBe('3 openings for 14 people. Whoever is late finds none.');
    expect(supplyInWords(preview(null, null, 1))).toBe('1 person is asked for their times first.');
  });

  it('is not sent with a blank unfilled, without an offer, or without openings', () => {
    const offer = { kind: 'page', id: 'x' } as Schemas['LetterOffer'];
    expect(obstacleOf(preview(9, 9, 2), offer)).toBeUndefined();
    expect(obstacleOf(preview(9, 9, 2), { kind: 'nothing' })).toBe('Choose an offer.');
    expect(obstacleOf({ ...preview(9, 9, 0), letters: [letter(), letter(['draught'])] }, offer)).toContain(
      '{{ draught }} of 1 guest.',
    );
    expect(obstacleOf(preview(0, 0, 2), offer)).toBe('Nothing of this offer is open.');
  });

  it('has nobody twice', () => {
    const ada = { name: 'Ada', email: 'ada@fern.example', zone: '', language: '', own: null };
    const other = { ...ada, name: 'Ada F.', email: ' ADA@fern.example' };
    expect(withAdded([ada], [other, { ...ada, email: 'bo@fern.example' }]).map((one) => one.email)).toEqual([
      'ada@fern.example',
      'bo@fern.example',
    ]);
  });
});
