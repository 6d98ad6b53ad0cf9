import { beforeEach, describe, expect, it, vi } from 'vitest';

const { invalidateAll, navigating } = vi.hoisted(() => ({
  invalidateAll: vi.fn(() => Promise.resolve()),
  navigating: { complete: null as Promise<void> | null },
}));
vi.mock('$app/navigation', () => ({ invalidateAll }));
vi.mock('$app/state', () => ({ navigating }));

const { askAnew } = await import('./anew');

/** A way to another screen, which ends as it is told to. */
function way(): { arrive: () => void; giveUp: () => void } {
  let [arrive, giveUp] = [(): void => undefined, (): void => undefined];
  navigating.complete = new Promise<void>((resolve, reject) => {
    arrive = () => {
      navigating.complete = null;
      resolve();
    };
    giveUp = () => {
      navigating.complete = null;
      reject(new Error('aborted'));
    };
  });
  return { arrive, giveUp };
}

describe('asking anew', () => {
  beforeEach(() => {
    navigating.complete = null;
    invalidateAll.mockClear();
  });

  it('asks at once where nobody is on the way', async () => {
    await askAnew();
    expect(invalidateAll).toHaveBeenCalledOnce();
  });

  it.each(['arrive', 'giveUp'] as const)(
    'does not end a way that has begun, and asks once it is over (%s)',
    async (end) => {
      const begun = way();
      const asked = askAnew();
      await Promise.resolve();
      expect(invalidateAll).not.toHaveBeenCalled();
      begun[end]();
      await asked;
      expect(invalidateAll).toHaveBeenCalledOnce();
    },
  );

  it('does not wait for ever for a way that was given up and is named still', async () => {
    navigating.complete = Promise.reject(new Error('aborted'));
    await askAnew();
    expect(invalidateAll).toHaveBeenCalledOnce();
  });

  it('waits for the last of several ways', async () => {
    const first = way();
    const asked = askAnew();
    await Promise.resolve();
    first.giveUp();
    const second = way();
    await new Promise((resolve) => setTimeout(resolve));
    expect(invalidateAll).not.toHaveBeenCalled();
    second.arrive();
    await asked;
    expect(invalidateAll).toHaveBeenCalledOnce();
  });
});
