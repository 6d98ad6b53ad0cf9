import { describe, expect, it } from 'vitest';
import { aheadInWords, besideLabel, minutesAhead } from './zones';

describe('a zone beside another', () => {
  it('is ahead by what the clocks differ on that date', () => {
    expect(minutesAhead('Europe/Copenhagen', 'Asia/Tokyo', '2026-12-08')).toBe(480);
    expect(minutesAhead('Europe/Copenhagen', 'Asia/Tokyo', '2026-07-08')).toBe(420);
    expect(minutesAhead('Europe/Copenhagen', 'America/St_Johns', '2026-12-08')).toBe(-270);
    // Both clocks change, but not on the same day.
    expect(minutesAhead('Europe/Copenhagen', 'America/Halifax', '2026-10-26')).toBe(-240);
    expect(minutesAhead('Europe/Copenhagen', 'America/Halifax', '2026-11-02')).toBe(-300);
  });

  it.each([
    [480, 480, '16'],
    [540, -270, '4:30'],
    [960, 480, '0 +1'],
    [60, -300, '20 −1'],
  ])('shows minute %i, %i ahead, as %s', (minute, ahead, label) =>
    expect(besideLabel(minute, ahead).replace(/^0(\d)/, '$1')).toBe(label),
  );

  it.each([
    [0, 'the same time'],
    [480, '8 h ahead'],
    [-270, '4 h 30 behind'],
    [30, '30 min ahead'],
  ])('%i is %s', (ahead, words) => expect(aheadInWords(ahead)).toBe(words));
});
