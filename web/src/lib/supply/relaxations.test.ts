import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { newForm } from '$lib/pages/form';
import { elsewhere, leadAfter, relaxationWords, taken } from './relaxations';

const form = newForm('Europe/Copenhagen', 'desk', 'anselm');

function relaxation(
  rule: Schemas['RelaxedRule'],
  parts: Partial<Schemas['RelaxationView']> = {},
): Schemas['RelaxationView'] {
  return { rule, from: null, to: null, hostId: null, host: null, seat: null, gained: 3, lost: 0, ...parts };
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

  it('changes the form by one rule and leaves the form it came from', () => {
    expect(taken(form, relaxation('noticeHalved', { from: 240, to: 120 })).times.notice).toBe(120);
    expect(taken(form, relaxation('longerWindow', { from: 28, to: 35 })).times.aheadDays).toBe(35);
    expect(taken(form, relaxation('seatOpened', { hostId: 'odile', seat: 0 })).times.lineUp).toEqual([
      { hostIds: ['anselm', 'odile'], fill: 'balanced' },
    ]);
    expect(taken(form, relaxation('pageWeeklyCapRaised', { from: 3, to: 4 })).times.weeklyCap).toBe(4);
    expect(form.times.notice).toBe(240);
    expect(form.times.lineUp[0]?.hostIds).toEqual(['anselm']);
  });

  it('lengthens a run of dates by its end', () => {
    const dated = structuredClone(form);
    dated.times.window = { kind: 'dates', from: '2026-12-20', to: '2026-12-28' };
    expect(taken(dated, relaxation('longerWindow', { from: 9, to: 16 })).times.window).toEqual({
      kind: 'dates',
      from: '2026-12-20',
      to: '2027-01-04',
    });
  });

  it('opens the page’s own hours earlier or longer, closed days not', () => {
    const earlier = taken(form, relaxation('hoursEarlier')).times.hours?.week;
    expect(earlier?.mon).toEqual([
      { from: '08:00', to: '12:00' },
      { from: '13:00', to: '17:00' },
    ]);
    expect(earlier?.sat).toEqual([]);
    expect(taken(form, relaxation('hoursLater')).times.hours?.week.fri.at(-1)?.to).toBe('18:00');
  });

  it('is made elsewhere where it is no rule of the page', () => {
    const hosts = structuredClone(form);
    hosts.times.hoursMode = 'hosts';
    expect(elsewhere(relaxation('hoursEarlier'), hosts)?.href).toBe('/work/hours');
    expect(elsewhere(relaxation('hostDailyCapRaised'), form)?.href).toBe('/work/team');
    expect(elsewhere(relaxation('hoursEarlier'), form)).toBeUndefined();
    expect(taken(hosts, relaxation('hoursEarlier'))).toEqual(hosts);
  });

  it('takes a seat out with its lead', () => {
    expect([leadAfter(0, 1), leadAfter(2, 1), leadAfter(1, 1)]).toEqual([0, 1, 0]);
  });
});
