import { beforeAll, describe, expect, it } from 'vitest';
import { setClock } from '$lib/time/format';
import {
  bufferExample,
  capExample,
  gridExample,
  noticeExample,
  placesExample,
  untilExample,
  windowExample,
} from './examples';
import { newForm } from './form';

beforeAll(() => setClock('h24'));

const zone = 'Europe/Copenhagen';
const worked = {
  now: '2026-12-07T07:00:00Z',
  zone,
  first: '2026-12-08T08:00:00Z',
  duration: 90,
  worked: {
    starts: ['2026-12-08T08:00:00Z', '2026-12-08T08:20:00Z'],
    freeFrom: '2026-12-08T09:50:00Z',
    next: '2026-12-08T10:00:00Z',
  },
};

function times(change: Partial<ReturnType<typeof newForm>['times']> = {}): ReturnType<typeof newForm>['times'] {
  return { ...newForm(zone, 'desk', 'host').times, ...change };
}

describe('an example of each rule, worked from the page', () => {
  it('says until when an opening keeps free and what comes next', () => {
    expect(bufferExample(worked)).toBe('One until 10:30 keeps free until 10:50: next start 11:00.');
    expect(bufferExample({ ...worked, worked: { ...worked.worked, freeFrom: '2026-12-08T09:30:00Z' } })).toBe(
      'One until 10:30 lets the next begin at 11:00.',
    );
  });

  it('counts notice from now, and the window to its last day', () => {
    expect(noticeExample(times({ notice: 1440 }), worked)).toBe('It is Mon 7, 08:00: nothing before Tue 8, 08:00.');
    expect(windowExample(times(), worked, '2027-01-04')).toBe('The last day is Mon 4 January 2027.');
    expect(windowExample(times(), worked, '2026-12-04')).toBe('The last day, Fri 4 December, is over.');
  });

  it('says what grid, caps, places and changes come to', () => {
    expect(gridExample(worked)).toBe('Such as 09:00, 09:20.');
    expect(capExample(times({ dailyCap: 3, weeklyCap: 8 }), worked)).toBe(
      'Tue 8 closes once it has 3, and the week of Tue 8 once it has 8.',
    );
    expect(capExample(times(), worked)).toBeUndefined();
    expect(placesExample(times({ places: 8 }), worked)).toBe(
      'Tue 8, 09:00 is open to 8 guests; the one after them finds it taken.',
    );
    expect(untilExample(1440, worked)).toBe('For Tue 8, 09:00: until Mon 7, 09:00.');
  });

  it('works nothing where nothing is open', () => {
    expect(bufferExample({ ...worked, first: undefined, worked: null })).toBeUndefined();
    expect(gridExample({ ...worked, worked: null })).toBeUndefined();
  });
});
