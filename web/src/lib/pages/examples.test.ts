import { beforeAll, describe, expect, it } from 'vitest';
import { setClock } from '$lib/time/format';
import { bufferExample, capExample, gridExample, noticeExample, placesExample, untilExample, windowExample } from './examples';
import { newForm } from './form';

beforeAll(() => setClock('h24'));

const zone = 'Europe/Copenhagen';
const worked = { now: '2026-12-07T07:00:00Z', zone, first: '2026-12-08T08:00:00Z', duration: 90 };

function times(change: Partial<ReturnType<typeof newForm>['times']> = {}): ReturnType<typeof newForm>['times'] {
  return { ...newForm(zone, 'desk', 'host').times, ...change };
}

describe('an example of each rule, worked from the page', () => {
  it('finds the next start after what is kept free', () => {
    expect(bufferExample(times({ bufferBefore: 10, bufferAfter: 20, step: 30 }), worked)).toBe('One until 10:30 keeps free until 10:50: next start 11:00.');
    expect(bufferExample(times({ bufferBefore: 45, bufferAfter: 20, step: 30 }), worked)).toBe('One until 10:30 keeps free until 11:15: next start 11:30.');
    expect(bufferExample(times({ bufferAfter: 20, step: 40, stepFrom: 'open' }), worked)).toBe('One until 10:30 keeps free until 10:50: next start 11:00.');
    expect(bufferExample(times({ bufferAfter: 20, step: 60, stepOffset: 15 }), worked)).toBe('One until 10:30 keeps free until 10:50: next start 11:15.');
    expect(bufferExample(times(), worked)).toBe('One until 10:30 lets the next begin at 10:30.');
  });

  it('counts notice from now, and the window to its last day', () => {
    expect(noticeExample(times({ notice: 1440 }), worked)).toBe('It is Mon 7, 08:00: nothing before Tue 8, 08:00.');
    expect(windowExample(times(), worked, '2027-01-04')).toBe('The last day is Mon 4 January 2027.');
    expect(windowExample(times(), worked, '2026-12-04')).toBe('The last day, Fri 4 December, is over.');
  });

  it('says what grid, caps, places and changes come to', () => {
    expect(gridExample(times({ step: 20 }), worked)).toBe('Such as 09:00, 09:20, 09:40.');
    expect(capExample(times({ dailyCap: 3, weeklyCap: 8 }), worked)).toBe('Tue 8 closes once it has 3, and the week of Tue 8 once it has 8.');
    expect(capExample(times(), worked)).toBeUndefined();
    expect(placesExample(times({ places: 8 }), worked)).toBe('Tue 8, 09:00 is open to 8 guests; the one after them finds it taken.');
    expect(untilExample(1440, worked)).toBe('For Tue 8, 09:00: until Mon 7, 09:00.');
  });

  it('works nothing where nothing is open', () => {
    expect(bufferExample(times(), { ...worked, first: undefined })).toBeUndefined();
  });
});
