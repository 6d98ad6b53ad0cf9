import { describe, expect, it } from 'vitest';
import { hourLines, joined, minuteOf, minuteText, moved, painted, placeOn, stretched } from './spans';

const axis = { from: 8 * 60, to: 18 * 60 };

describe('spans of a day', () => {
  it('joins those that meet or touch, and drops the empty', () => {
    expect(
      joined([
        { from: 600, to: 660 },
        { from: 540, to: 600 },
        { from: 700, to: 700 },
        { from: 720, to: 780 },
        { from: 730, to: 740 },
      ]),
    ).toEqual([
      { from: 540, to: 660 },
      { from: 720, to: 780 },
    ]);
  });

  it('leaves what it was given as it was', () => {
    const given = [
      { from: 540, to: 600 },
      { from: 590, to: 700 },
    ];
    joined(given);
    expect(given[0]).toEqual({ from: 540, to: 600 });
  });

  it.each([
    [545, 700, { from: 540, to: 705 }],
    [700, 545, { from: 540, to: 705 }],
    [599, 721, { from: 600, to: 720 }],
    [600, 600, { from: 600, to: 615 }],
    [100, 2000, { from: 480, to: 1080 }],
    [1079, 1500, { from: 1065, to: 1080 }],
  ])('paints from %i to %i by the quarter hour, within the axis', (a, b, span) =>
    expect(painted(a, b, 15, axis)).toEqual(span),
  );

  it.each([
    [60, { from: 660, to: 720 }],
    [-1000, { from: 0, to: 60 }],
    [2000, { from: 1380, to: 1440 }],
  ])('moves by %i and keeps its length', (by, span) => expect(moved({ from: 600, to: 660 }, by)).toEqual(span));

  it('stretches no end past the other', () => {
    expect(stretched({ from: 600, to: 660 }, 'to', 500, 15)).toEqual({ from: 600, to: 615 });
    expect(stretched({ from: 600, to: 660 }, 'from', 900, 15)).toEqual({ from: 645, to: 660 });
    expect(stretched({ from: 600, to: 660 }, 'to', 2000, 15)).toEqual({ from: 600, to: 1440 });
  });

  it('writes and reads times of day', () => {
    expect([0, 570, 1440].map(minuteText)).toEqual(['00:00', '09:30', '24:00']);
    expect(['00:00', '09:30', '24:00', '24:15', '9:30', '10:60'].map(minuteOf)).toEqual([
      0,
      570,
      1440,
      undefined,
      undefined,
      undefined,
    ]);
  });

  it('places and pieces', () => {
    expect(placeOn(axis, 480, 780)).toBe('left: 0%; width: 50%');
    expect(placeOn(axis, 0, 540)).toBe('left: 0%; width: 10%');
    expect(hourLines(axis, 180)).toEqual([540, 720, 900, 1080]);
  });
});
