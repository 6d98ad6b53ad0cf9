import { expect, it } from 'vitest';
import { Looking } from './Looking.svelte';
import { ProblemError } from './problem';

it('asks one after the other and leaves out what a later one made stale', async () => {
  const looking = new Looking();
  const shown: number[] = [];
  let answer = (): void => undefined;
  const first = looking.look(async () => {
    await new Promise<void>((resolve) => (answer = resolve));
    shown.push(1);
  });
  for (const i of [2, 3]) {
    void looking.look(() => {
      shown.push(i);
      return Promise.resolve();
    });
  }
  expect([looking.busy, shown]).toEqual([true, []]);
  answer();
  await first;
  expect([looking.busy, shown]).toEqual([false, [1, 3]]);
});

it('tells what is wrong until the next answer', async () => {
  const looking = new Looking();
  await looking.look(() => Promise.reject(new ProblemError({ status: 400, title: 'No' })));
  expect(looking.problem?.title).toBe('No');
  await looking.look(() => Promise.resolve());
  expect(looking.problem).toBeUndefined();
});
