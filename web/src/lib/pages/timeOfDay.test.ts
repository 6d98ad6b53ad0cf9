import { expect, it } from 'vitest';
import { timeOfDay } from './timeOfDay';

it.each([
  ['9', '09:00'],
  ['9:30', '09:30'],
  ['0930', '09:30'],
  ['17.45', '17:45'],
  ['24', '24:00'],
  ['24:01', '24:01'],
  ['noon', 'noon'],
  ['', ''],
])('reads %s as %s', (typed, time) => expect(timeOfDay(typed)).toBe(time));
