import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { newForm, usualDetails } from '$lib/pages/form';
import { elsewhere, leadAfter, relaxationWords, taken } from './relaxations';

const form = newForm('Europe/Copenhagen', 'desk', 'anselm');

function relaxation(
  rule: Schemas['RelaxedRule'],
  parts: Partial<Schemas['RelaxationView']> = {},
): Schemas['RelaxationView'] {
  return {
    rule,
    from: null,
    to: null,
    hostId: null,
    host: null,
    seat: null,
    gained: 3,
    lost: 0,
    change: null,
    ...parts,
  };
}

describe('a change that would open more', () => {
  it('is said in words', () => {
    expect(relaxationWords(relaxation('noticeHalved', { from: 1440, to: 720 }))).toBe('1 day notice → 12 hours');
    expect(relaxationWords(relaxation('bufferAfterDropped', { from: 20, to: 0 }))).toBe('20 minutes after → none');
    expect(relaxationWords(relaxation('seatOpened', { host: 'Odile Farrow', seat: 1 }))).toBe(
      'Let Odile Farrow take seat 2 as well',
    );
    expect(relaxationWords(relaxation('pageDailyCapRaised', { from: 3, to: 4 }))).toBe('4 a day instead of 3');
  });

  it('puts what the server changed into the form and leaves the form it came from', () => {
    const notice = taken(form, relaxation('noticeHalved', { from: 240, to: 120, change: { notice: 120 } }));
    expect(notice).toEqual({ ...form, times: { ...form.times, notice: 120 } });
    const seats = [{ hostIds: ['anselm', 'odile'], fill: 'balanced' }];
    expect(taken(form, relaxation('seatOpened', { change: { lineUp: seats } })).times.lineUp).toEqual(seats);
    expect(form.times.notice).toBe(240);
    expect(form.times.lineUp[0]?.hostIds).toEqual(['anselm']);
  });

  it('lengthens a run of dates by its end', () => {
    const dated = structuredClone(form);
    dated.times.window = { kind: 'dates', from: '2026-12-20', to: '2026-12-28' };
    const longer = relaxation('longerWindow', { from: 9, to: 16, change: { window: { to: '2027-01-04' } } });
    expect(taken(dated, longer).times.window).toEqual({ kind: 'dates', from: '2026-12-20', to: '2027-01-04' });
  });

  it('is made elsewhere where it is no rule of the page', () => {
    expect(elsewhere(relaxation('hoursEarlier'), false)?.href).toBe('/work/hours');
    expect(elsewhere(relaxation('hoursEarlier'), true)?.href).toBe('/work/board');
    expect(elsewhere(relaxation('hostDailyCapRaised'), false)?.href).toBe('/work/team');
    expect(elsewhere(relaxation('hoursEarlier', { change: { hours: {} } }), false)).toBeUndefined();
    expect(taken(form, relaxation('hoursEarlier'))).toEqual(form);
  });

  it('takes a seat out with who leads', () => {
    const two = structuredClone(form);
    two.times.lineUp = [...two.times.lineUp, { hostIds: ['odile'], fill: 'balanced' }];
    two.details = { ...usualDetails(), lead: 1 };
    const without = taken(two, relaxation('hostOptional', { seat: 0, change: { lineUp: two.times.lineUp.slice(1) } }));
    expect(without.times.lineUp).toEqual([{ hostIds: ['odile'], fill: 'balanced' }]);
    expect(without.details?.lead).toBe(0);
  });

  it('takes a seat out with its lead', () => {
    expect([leadAfter(0, 1), leadAfter(2, 1), leadAfter(1, 1)]).toEqual([0, 1, 0]);
  });
});
