import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { atMostEvery } from './throttle';

describe('changes near one another', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('show at once, and all that follow as one', () => {
    const act = vi.fn();
    const { call } = atMostEvery(800, act);
    call();
    expect(act).toHaveBeenCalledTimes(1);
    for (let count = 0; count < 5; count++) call();
    vi.advanceTimersByTime(799);
    expect(act).toHaveBeenCalledTimes(1);
    vi.advanceTimersByTime(1);
    expect(act).toHaveBeenCalledTimes(2);
    vi.advanceTimersByTime(5000);
    expect(act).toHaveBeenCalledTimes(2);
    call();
    expect(act).toHaveBeenCalledTimes(3);
  });

  it('are forgotten when nobody watches any more', () => {
    const act = vi.fn();
    const { call, stop } = atMostEvery(800, act);
    call();
    call();
    stop();
    vi.advanceTimersByTime(5000);
    expect(act).toHaveBeenCalledTimes(1);
  });
});
