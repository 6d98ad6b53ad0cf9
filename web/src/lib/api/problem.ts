import { refusals, say } from '$lib/words/say.svelte';
import { spokenIn } from '$lib/words/refusals';

/**
 * A problem as the server tells it (RFC 9457), in the language that is spoken, or one made here where no answer came.
 */
export interface Problem {
  status: number;
  type?: string;
  title: string;
  detail?: string;
  /** Faults by field, each with its mend. */
  errors?: Record<string, string[]>;
  [more: string]: unknown;
}

/** Thrown by `must`, so that queries fail with something that can be shown. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
}

function unreachable(): Problem {
  return { status: 0, title: say('fault.unreachable.title'), detail: say('fault.unreachable.detail') };
}

export function toProblem(error: unknown, status: number): Problem {
  if (typeof error === 'object' && error !== null && 'title' in error) {
    return spoken({ ...(error as Problem), status });
  }
  return { status, title: say('fault.unknown.title'), detail: say('fault.unknown.detail') };
}

/** A problem in the language that is spoken by now. */
export function spoken(problem: Problem): Problem {
  if (problem.status === 0) return unreachable();
  const table = refusals();
  return table ? spokenIn(table, problem) : problem;
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or its problem thrown. */
export async function must<T>(asked: Promise<Answer<T>>): Promise<T> {
  const answer = await asked.catch(() => {
    throw new ProblemError(unreachable());
  });
  if (answer.error !== undefined || !answer.response.ok)
    throw new ProblemError(toProblem(answer.error, answer.response.status));
  return answer.data as T;
}

/** The problem behind whatever was thrown. */
export function problemOf(thrown: unknown): Problem {
  return thrown instanceof ProblemError ? thrown.problem : toProblem(undefined, 0);
}

/** What is wrong in one line: the mend of a field that stands alone, or else what was refused. */
export function faultOf(problem: Problem, field: string): string {
  return problem.errors?.[field]?.[0] ?? problem.title;
}

/** The first mend for a field, or undefined. */
export function mendOf(problem: Problem | undefined, field: string): string | undefined {
  return problem?.errors?.[field]?.[0];
}
