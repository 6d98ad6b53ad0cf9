import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { watchChanges } from './changes';

class FakeSource extends EventTarget {
  static made: FakeSource[] = [];
  static readonly CLOSED = 2;
  closed = false;
  readyState = 1;

  constructor(readonly url: string) {
    super();
    FakeSource.made.push(this);
  }

  close(): void {
    this.closed = true;
  }

  say(what: string): void {
    this.dispatchEvent(new Event(what));
  }
}

class FakeDocument extends EventTarget {
  visibilityState = 'visible';

  show(state: 'visible' | 'hidden'): void {
    this.visibilityState = state;
    this.dispatchEvent(new Event('visibilitychange'));
  }
}

let page: FakeDocument;

beforeEach(() => {
  vi.useFakeTimers();
  FakeSource.made = [];
  page = new FakeDocument();
  vi.stubGlobal('EventSource', FakeSource);
  vi.stubGlobal('document', page);
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

it('all who watch a path share one line, which ends with the last of them', () => {
  const [one, other] = [vi.fn(), vi.fn()];
  const [leaveOne, leaveOther] = [watchChanges('/changes', one), watchChanges('/changes', other)];
  expect(FakeSource.made.length).toBe(1);
  FakeSource.made[0]?.say('changed');
  expect([one, other].map((told) => told.mock.calls.length)).toEqual([1, 1]);
  leaveOne();
  vi.advanceTimersByTime(1000);
  FakeSource.made[0]?.say('changed');
  expect([one, other].map((told) => told.mock.calls.length)).toEqual([1, 2]);
  expect(FakeSource.made[0]?.closed).toBe(false);
  leaveOther();
  expect(FakeSource.made[0]?.closed).toBe(true);
});

it('who comes just after a change hears of it, since it may have loaded before, and who comes later does not', () => {
  const leave = watchChanges('/changes', vi.fn());
  FakeSource.made[0]?.say('changed');
  vi.advanceTimersByTime(1000);
  const [soon, late] = [vi.fn(), vi.fn()];
  const leaveSoon = watchChanges('/changes', soon);
  vi.advanceTimersByTime(5000);
  const leaveLate = watchChanges('/changes', late);
  expect([soon.mock.calls.length, late.mock.calls.length]).toEqual([1, 0]);
  for (const end of [leave, leaveSoon, leaveLate]) end();
});

it('asks anew once a broken line is back, and when the screen comes to the front', () => {
  const told = vi.fn();
  const leave = watchChanges('/changes', told);
  FakeSource.made[0]?.say('open');
  expect(told).not.toHaveBeenCalled();
  FakeSource.made[0]?.say('error');
  FakeSource.made[0]?.say('open');
  expect(told).toHaveBeenCalledTimes(1);
  vi.advanceTimersByTime(1000);
  page.show('hidden');
  expect(FakeSource.made[0]?.closed).toBe(true);
  page.show('visible');
  expect(told).toHaveBeenCalledTimes(2);
  expect(FakeSource.made.length).toBe(2);
  leave();
});

it('a screen that is told no more of changes asks each half minute, and is told again once there is a place', () => {
  const told = vi.fn();
  const leave = watchChanges('/changes', told);
  const refused = FakeSource.made[0];
  if (refused) refused.readyState = FakeSource.CLOSED;
  refused?.say('error');
  vi.advanceTimersByTime(29_000);
  expect([told.mock.calls.length, FakeSource.made.length]).toEqual([0, 1]);
  vi.advanceTimersByTime(1_500);
  expect([told.mock.calls.length, FakeSource.made.length]).toEqual([1, 2]);
  FakeSource.made[1]?.say('open');
  vi.advanceTimersByTime(60_000);
  expect(FakeSource.made.length).toBe(2);
  leave();
});
