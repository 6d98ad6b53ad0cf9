import { Attempt } from './Attempt.svelte';
import type { Problem } from './problem';

/**
 * A form while it is filled in: whether something would be lost by leaving, what is under way, what stands in its way,
 * and what mends each field.
 */
export class FormState<Form extends object> {
  form: Form;
  /** What stands in the way of counting what the form as it stands would do. */
  countProblem = $state.raw<Problem | undefined>(undefined);

  #attempt = new Attempt();
  #kept = $state('');

  constructor(form: Form) {
    this.form = $state(structuredClone(form));
    this.#kept = JSON.stringify(form);
  }

  // Read as they are, not derived: what is under way when the screen is left still reads them.

  /** Whether something is typed that is not kept. */
  get isTouched(): boolean {
    return JSON.stringify(this.form) !== this.#kept;
  }

  get busy(): boolean {
    return this.#attempt.busy;
  }

  /** What stood in the way of the last press. */
  get problem(): Problem | undefined {
    return this.#attempt.problem;
  }

  set problem(problem: Problem | undefined) {
    this.#attempt.problem = problem;
  }

  /** The mend of a field, whether it was found while saving or while counting. */
  mend(field: string): string | undefined {
    // What can't even be read is named from the root of the request, in which a change stands under "form".
    const saving = this.problem?.errors;
    return (saving?.[field] ?? saving?.[`form.${field}`] ?? this.countProblem?.errors?.[field])?.[0];
  }

  /** Mends of a field and of everything beneath it, such as the times of one day; each once. */
  mendsUnder(path: string): string[] {
    const errors = { ...this.countProblem?.errors, ...this.problem?.errors };
    const found = Object.keys(errors).filter((field) =>
      [path, `form.${path}`].some(
        (under) => field === under || field.startsWith(`${under}[`) || field.startsWith(`${under}.`),
      ),
    );
    return [...new Set(found.flatMap((field) => errors[field] ?? []))];
  }

  /** Takes another form in place of what is typed: a change that was offered, or what once was. */
  take(form: Form): void {
    Object.assign(this.form, structuredClone(form));
  }

  /** Takes what is saved in place of what is typed; nothing is to be lost then. */
  protected keep(form: Form): void {
    this.take(form);
    this.#kept = JSON.stringify(this.form);
  }

  /**
   * Does what a press asks for, unless something is under way. Undefined where `problem` says what stood in the way.
   */
  protected async attempt<T>(doing: () => Promise<T>): Promise<T | undefined> {
    let done: T | undefined;
    await this.#attempt.run(async () => (done = await doing()));
    return done;
  }
}
