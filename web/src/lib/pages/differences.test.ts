import { describe, expect, it } from 'vitest';
import { changedParts, changedPaths } from './differences';
import { newForm } from './form';

describe('what differs between two states of a page', () => {
  const form = newForm('Europe/Copenhagen', 'desk', 'host');

  it('names each part once, by the words people use', () => {
    const other = structuredClone(form);
    other.times.notice = 60;
    other.times.step = 15;
    other.times.stepOffset = 5;
    other.details!.face.accent = '#123456';
    other.details!.after.words = 'Bring boots.';
    expect(changedParts(form, other)).toEqual(['start grid', 'notice', 'accent', 'words afterwards']);
  });

  it('finds nothing between a form and its copy', () => {
    expect(changedPaths(form, structuredClone(form))).toEqual([]);
  });

  it('compares lists whole, and tells nothing from null', () => {
    const other = structuredClone(form);
    other.times.lineUp[0]!.hostIds = ['host', 'another'];
    other.times.window = { kind: 'open', from: null, to: null };
    expect(changedPaths(form, other)).toEqual(['times.lineUp', 'times.window']);
  });
});
