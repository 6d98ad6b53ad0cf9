import { Attempt } from './Attempt.svelte';
import { problemOf, type Problem } from './problem';

/** What was refused, and the form that was. */
interface Refused {
  problem: Problem;
  form: object;
}

/** What stands at a field as problems name it, "times.lineUp[0].hostIds" say, whether from the form or the request. */
function valueAt(form: object, field: string): unknown {
  return field
    .replace(/^form\./, '')
    .split(/[.[\]]+/)
    .filter((part) => part !== '')
    .reduce<unknown>((value, part) => (value as Record<string, unknown> | null | undefined)?.[part], form);
}

const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * A form while it is filled in: whether something would be lost by leaving, what is under way, what stands in its way,
 * and what mends each field.
 */
export class FormState<Form extends object> {
  form: Form;
  #counting = $state.raw<Refused | undefined>(undefined);
  #saving = $state.raw<Refused | undefined>(undefined);

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

  /** What stood in the way of the last press, but for fields that were changed since. */
  get problem(): Problem | undefined {
    return this.#left(this.#saving);
  }

  set problem(problem: Problem | undefined) {
    this.#saving = this.#refused(problem);
  }

  /** What stands in the way of counting what the form as it stands would do. */
  get countProblem(): Problem | undefined {
    return this.#left(this.#counting);
  }

  set countProblem(problem: Problem | undefined) {
    this.#counting = this.#refused(problem);
  }

  #refused(problem: Problem | undefined): Refused | undefined {
    return problem && { problem, form: $state.snapshot(this.form) as object };
  }

  /** A problem without the fields that are not as they were refused; none where nothing of it is left. */
  #left(refused: Refused | undefined): Problem | undefined {
    if (!refused?.problem.errors) return refused?.problem;
    const left = Object.entries(refused.problem.errors).filter(([field]) =>
      isSame(valueAt(this.form, field), valueAt(refused.form, field)),
    );
    return left.length === 0 ? undefined : { ...refused.problem, errors: Object.fromEntries(left) };
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
    if (!this.busy) this.#saving = undefined;
    await this.#attempt.run(async () => {
      try {
        done = await doing();
      } catch (thrown) {
        // Kept with the form as it was refused, before the press leads to the first field.
        this.problem = problemOf(thrown);
        throw thrown;
      }
    });
    return done;
  }
}
