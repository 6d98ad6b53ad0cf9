import { describe, expect, it } from 'vitest';
import { FormState } from './FormState.svelte';
import { ProblemError } from './problem';

class Named extends FormState<{ name: string; days: string[] }> {
  save(answer: () => Promise<string>): Promise<string | undefined> {
    return this.attempt(async () => {
      const name = await answer();
      this.keep({ name, days: [] });
      return name;
    });
  }
}

const started = (): Named => new Named({ name: 'Yard', days: [] });

describe('a form', () => {
  it('is touched by what is typed, and not by what is kept', async () => {
    const form = started();
    expect(form.isTouched).toBe(false);
    form.form.name = 'Loft';
    expect(form.isTouched).toBe(true);
    expect(await form.save(() => Promise.resolve('Loft'))).toBe('Loft');
    expect(form.isTouched).toBe(false);
    form.take({ name: 'Shed', days: [] });
    expect(form.isTouched).toBe(true);
  });

  it('keeps what is typed where saving fails, and says what mends each field', async () => {
    const form = started();
    form.form.name = '';
    const errors = { 'form.name': ['Name it.'], 'days[0].from': ['Too early.', 'Too early.'], 'days[1]': ['Odd.'] };
    expect(
      await form.save(() => Promise.reject(new ProblemError({ status: 400, title: 'Mend.', errors }))),
    ).toBeUndefined();
    expect(form.form.name).toBe('');
    expect(form.busy).toBe(false);
    expect(form.mend('name')).toBe('Name it.');
    expect(form.mendsUnder('days')).toEqual(['Too early.', 'Odd.']);
    expect(form.mendsUnder('day')).toEqual([]);
    form.countProblem = { status: 400, title: 'Mend.', errors: { hosts: ['Choose somebody.'] } };
    expect(form.mend('hosts')).toBe('Choose somebody.');
    await form.save(() => Promise.resolve('Yard'));
    expect(form.problem).toBeUndefined();
  });

  it('says no more of a field once it is changed, and nothing once all of them are', async () => {
    const form = started();
    const errors = { 'form.name': ['Name it.'], 'days[0]': ['Odd.'] };
    await form.save(() => Promise.reject(new ProblemError({ status: 400, title: 'Mend.', errors })));
    form.form.name = 'Loft';
    expect(form.mend('name')).toBeUndefined();
    expect(form.problem?.errors).toEqual({ 'days[0]': ['Odd.'] });
    form.form.days = ['mon'];
    expect(form.problem).toBeUndefined();
    form.countProblem = { status: 400, title: 'Mend.', errors: { name: ['Too short.'] } };
    expect(form.mend('name')).toBe('Too short.');
    form.form.name = 'Loft over the slip';
    expect(form.mend('name')).toBeUndefined();
  });

  it('does one thing at a time', async () => {
    const form = started();
    let answer: (name: string) => void = () => undefined;
    const first = form.save(() => new Promise((resolve) => (answer = resolve)));
    expect(form.busy).toBe(true);
    expect(await form.save(() => Promise.resolve('second'))).toBeUndefined();
    answer('first');
    expect(await first).toBe('first');
    expect(form.form.name).toBe('first');
  });
});
