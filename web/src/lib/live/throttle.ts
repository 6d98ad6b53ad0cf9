/**
 * The same function, called at most so often: the first time at once, and once more after a pause for all that came
 * meanwhile.
 */
export function atMostEvery(milliseconds: number, act: () => void): { call: () => void; stop: () => void } {
  let waiting: ReturnType<typeof setTimeout> | undefined;
  let missed = false;

  function rest(): void {
    waiting = setTimeout(() => {
      waiting = undefined;
      if (missed) call();
    }, milliseconds);
  }

  function call(): void {
    missed = waiting !== undefined;
    if (missed) return;
    rest();
    act();
  }

  return { call, stop: () => clearTimeout(waiting) };
}
