import { describe, expect, it } from 'vitest';
import { newForm } from './form';
import { sectionsOf } from './sections';

const names: Record<string, string> = { s: 'Sunniva Dale', k: 'Keziah Moon' };

describe('the editor’s sections at a glance', () => {
  it('say in a few words what is set', () => {
    const form = newForm('Europe/Copenhagen', 'desk', 's');
    const said = (): Record<string, string> =>
      Object.fromEntries(sectionsOf(form, (id) => names[id] ?? '').map(({ title, words }) => [title, words]));
    expect(said()).toMatchObject({
      Appointment: '30 min, in person',
      'Line-up': 'Sunniva',
      Times: 'hosts’ hours, 4 hours notice',
      Limits: 'none',
      Questions: 'none',
      'Guests may': 'book at once, move, cancel',
      Mail: '2 reminders',
    });
    form.times.lineUp = [{ hostIds: ['s', 'k'], fill: 'balanced' }];
    Object.assign(form.times, { bufferAfter: 10, dailyCap: 2, places: 8 });
    form.approvalHours = 24;
    expect(said()).toMatchObject({
      'Line-up': 'Sunniva or Keziah',
      Limits: '10 min kept free, 2 a day, 8 places',
      'Guests may': 'ask, move, cancel',
    });
  });
});
