import { filled } from './say.svelte';

/** What the server refuses and what mends it, by key: one of the tables in words/refusals. */
export interface Refusals {
  refusals: Readonly<Record<string, { title?: string; detail?: string }>>;
  mends: Readonly<Record<string, string>>;
}

/** A phrase as the server sends it. */
export interface Phrase {
  key: string;
  values?: Readonly<Record<string, unknown>>;
}

/** The members of a problem that say the same by key (RFC 9457 section 3.2). */
interface Told {
  title: string;
  detail?: string;
  errors?: Record<string, string[]>;
  phrase?: Phrase;
  /** Whether the detail is the team's own words, which are in its own language. */
  ownWords?: boolean;
  mends?: Record<string, Phrase[]>;
}

/** A problem in the language of a table; what the table has not stays as it was sent. */
export function spokenIn<T extends Told>(table: Refusals, problem: T): T {
  const values = problem.phrase?.values ?? {};
  const said = problem.phrase && table.refusals[problem.phrase.key];
  const errors =
    problem.errors &&
    Object.fromEntries(
      Object.entries(problem.errors).map(([field, words]) => [
        field,
        problem.mends?.[field]?.map((mend, at) => {
          const phrase = table.mends[mend.key];
          return phrase === undefined ? (words[at] ?? '') : filled(phrase, mend.values ?? {});
        }) ?? words,
      ]),
    );
  return {
    ...problem,
    ...(said && {
      title: filled(said.title ?? problem.title, values),
      detail: problem.ownWords ? problem.detail : said.detail && filled(said.detail, values),
    }),
    ...(errors && { errors }),
  };
}
