import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { newForm } from '$lib/pages/form';
import { blocksWith, erasedAll, erasedOne, isStill, startIn, withAll, withOne, buffersCost } from './blocks';

const blocks: Schemas['BlockForm'][] = [
  { start: '2026-12-08T09:00:00', length: 120, rule: 'FREQ=WEEKLY;BYDAY=TU', without: [] },
  { start: '2026-12-10T14:00:00', length: 60, rule: null, without: [] },
];
const second: Schemas['BoardBlock'] = {
  pageId: 'p',
  index: 0,
  start: '2026-12-15T09:00:00',
  length: 120,
  repeats: true,
  zone: 'Europe/Copenhagen',
  mayChange: true,
};
const single: Schemas['BoardBlock'] = { ...second, index: 1, start: '2026-12-10T14:00:00', length: 60, repeats: false };

describe('blocks that are changed on the board', () => {
  it('take one coming of a repeating block out and put it where it went', () => {
    expect(withOne(blocks, second, { start: '2026-12-16T10:00:00', length: 90 })).toEqual([
      { ...blocks[0], without: ['2026-12-15'] },
      blocks[1],
      { start: '2026-12-16T10:00:00', length: 90, rule: null, without: [] },
    ]);
  });

  it('move a single block as it is', () =>
    expect(withOne(blocks, single, { start: '2026-12-11T08:00:00', length: 45 })[1]).toEqual({
      ...blocks[1],
      start: '2026-12-11T08:00:00',
      length: 45,
    }));

  it('shift all comings alike', () =>
    expect(withAll(blocks, second, { start: '2026-12-15T10:30:00', length: 60 })[0]).toMatchObject({
      start: '2026-12-08T10:30:00',
      length: 60,
    }));

  it('erase one coming, or all of them', () => {
    expect(erasedOne(blocks, second)[0]?.without).toEqual(['2026-12-15']);
    expect(erasedOne(blocks, single)).toEqual([blocks[0]]);
    expect(erasedAll(blocks, second)).toEqual([blocks[1]]);
  });

  it('are left alone where a colleague has changed them since the board came', () => {
    expect(isStill(blocks, second)).toBe(true);
    expect(isStill(blocks, single)).toBe(true);
    expect(isStill(erasedAll(blocks, second), second)).toBe(false);
    expect(isStill(erasedOne(blocks, second), second)).toBe(false);
    expect(isStill(withAll(blocks, second, { start: '2026-12-15T10:30:00', length: 120 }), second)).toBe(false);
    expect(isStill(withOne(blocks, single, { start: '2026-12-10T14:00:00', length: 45 }), single)).toBe(false);
  });

  it('leave what they were given as it was', () => expect(blocks[0]?.without).toEqual([]));
});

describe('where a block starts', () => {
  it('is told by the page’s clock', () => {
    expect(startIn('Europe/Copenhagen', 'Europe/Copenhagen', '2026-12-08', 570)).toBe('2026-12-08T09:30:00');
    expect(startIn('Asia/Tokyo', 'Europe/Copenhagen', '2026-12-08', 17 * 60)).toBe('2026-12-09T01:00:00');
  });

  it('is the wall clock’s also on a day when it changes', () =>
    expect(startIn('Europe/Copenhagen', 'Europe/Copenhagen', '2026-10-25', 570)).toBe('2026-10-25T09:30:00'));
});

describe('office hours of a page', () => {
  it('go on being offered as they were', () => {
    const form = newForm('Europe/Copenhagen', 'd', 'h');
    const list = [{ start: '2026-12-08T09:00:00', length: 90, rule: null, without: [] }];
    form.times.blocks = { whole: true, list: [] };
    expect(blocksWith(form, list)).toEqual({ whole: true, list });
    form.times.blocks = null;
    expect(blocksWith(form, list)).toEqual({ whole: false, list });
  });
});

describe('what buffers would cost a block', () => {
  it('tells how many openings would be left', () => {
    expect(buffersCost(420, 30, 10)).toContain('14 openings would become 10');
    expect(buffersCost(60, 30, 10)).toContain('2 openings would become one');
    expect(buffersCost(30, 30, 10)).toBeUndefined();
    expect(buffersCost(30, 0, 10)).toBeUndefined();
  });
});
