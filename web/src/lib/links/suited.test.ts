import { describe, expect, it } from 'vitest';
import { guestsToBook } from './suited';

const ottilie = { name: 'Ottilie Wren', email: 'ottilie@wren-charters.example' };
const osric = { name: 'Osric Pell', email: '' };
const sent = { name: 'Osric Pell', email: 'osric@pell.example' };

describe('whom a time is booked for that suits one guest', () => {
  it('is that guest alone, where the link names nobody else or each comes at their own time', () => {
    expect(guestsToBook([], true, sent)).toEqual([sent]);
    expect(guestsToBook([osric], true, sent)).toEqual([sent]);
    expect(guestsToBook([ottilie, osric], false, sent)).toEqual([sent]);
  });

  it('is everybody who comes together, with the email that was given', () => {
    expect(guestsToBook([ottilie, osric], true, sent)).toEqual([sent, ottilie]);
    expect(guestsToBook([ottilie, osric], true, { ...ottilie, email: 'OTTILIE@wren-charters.example' })).toEqual([
      { ...ottilie, email: 'OTTILIE@wren-charters.example' },
      osric,
    ]);
  });
});
