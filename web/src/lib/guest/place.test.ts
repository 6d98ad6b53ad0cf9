import { describe, expect, it } from 'vitest';
import { placeWords } from './place';

describe('where an appointment is', () => {
  it('is said of each kind, so that it can stand alone', () => {
    expect(placeWords('inPerson', 'The old sail loft')).toBe('The old sail loft');
    expect(placeWords('video', '')).toBe('By video');
    expect(placeWords('video', 'https://rooms.example/a')).toBe('By video: https://rooms.example/a');
    expect(placeWords('phone', '', true)).toBe('By phone: we call you');
    expect(placeWords('phone', 'Have the drawings at hand', true, '+45 55 01')).toBe(
      'By phone: we call you on +45 55 01. Have the drawings at hand',
    );
    expect(placeWords('phone', '+45 55 02', false)).toBe('By phone: call us on +45 55 02');
  });
});
