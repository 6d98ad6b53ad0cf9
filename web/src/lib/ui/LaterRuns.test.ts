import { describe, expect, it, vi } from 'vitest';
import { LaterRuns } from './LaterRuns.svelte';

const run = (ids: string[], after: string | null) => ({ rows: ids.map((id) => ({ id })), total: 9, after });

/** A list of a, b, c, d in runs of two. */
function list(first = run(['a', 'b'], 'b')) {
  const shown = { first };
  const ask = vi.fn((after: string) => Promise.resolve(after === 'b' ? run(['c', 'd'], null) : run(['d'], null)));
  return { shown, ask, runs: new LaterRuns('all', () => shown.first, ask) };
}
const ids = (runs: LaterRuns<{ id: string }>): string => runs.rows.map((row) => row.id).join('');

describe('a list that grows', () => {
  it('asks for what comes after its last run, once, until there is no more', async () => {
    const { ask, runs } = list();
    expect([ids(runs), runs.isWhole]).toEqual(['ab', false]);
    await Promise.all([runs.more(), runs.more()]);
    expect([ids(runs), runs.isWhole]).toEqual(['abcd', true]);
    await runs.more();
    expect(ask).toHaveBeenCalledTimes(1);
  });

  it('asks for as much again as the first run comes anew, and shows nothing twice', async () => {
    const { shown, ask, runs } = list();
    await runs.more();
    shown.first = run(['b', 'c'], 'c');
    expect(ids(runs)).toBe('bcd');
    await runs.renew('all');
    expect(ids(runs)).toBe('bcd');
    expect(ask).toHaveBeenLastCalledWith('c');
    expect(ask).toHaveBeenCalledTimes(2);
  });

  it('begins again with another choice', async () => {
    const { ask, runs } = list();
    await runs.more();
    await runs.renew('others');
    expect(ids(runs)).toBe('ab');
    expect(ask).toHaveBeenCalledTimes(1);
  });

  it('drops what came too late, and says what failed', async () => {
    const { ask, runs } = list();
    let answer = (): void => undefined;
    ask.mockImplementationOnce(() => new Promise((resolve) => (answer = () => resolve(run(['x'], null)))));
    const late = runs.more();
    await runs.renew('others');
    answer();
    await late;
    expect(ids(runs)).toBe('ab');
    ask.mockImplementationOnce(() => Promise.reject(new Error('gone')));
    await runs.more();
    expect(runs.problem).toBeDefined();
    expect(runs.busy).toBe(false);
  });
});
