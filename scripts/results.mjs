// Counts the tests of a run, and notes how long each took and what those say that did not pass.
//   node scripts/results.mjs vitest|ctrf RESULTS.json SLOW BAD
// prints "PASSED NOT-PASSED"; a line "MILLISECONDS NAME" a test is added to SLOW, and a few lines each to BAD.
import { appendFileSync, readFileSync } from 'node:fs';

const [kind, file, slow, bad] = process.argv.slice(2);
const read = JSON.parse(readFileSync(file, 'utf8'));
const tests =
    kind === 'vitest'
        ? read.testResults.flatMap((suite) =>
              suite.assertionResults.map((one) => ({
                  name: one.fullName,
                  ms: one.duration ?? 0,
                  passed: one.status === 'passed',
                  said: (one.failureMessages ?? []).join('\n'),
              })),
          )
        : read.results.tests.map((one) => ({
              name: one.name,
              ms: one.duration,
              passed: one.status === 'passed',
              said: `${one.message ?? one.status}\n${one.trace ?? ''}`,
          }));
appendFileSync(slow, tests.map((one) => `${Math.round(one.ms)} ${one.name.replaceAll('\n', ' ')}\n`).join(''));
// Enough lines to see what was expected and where; the whole stands in the run's log.
appendFileSync(
    bad,
    tests
        .filter((one) => !one.passed)
        .map(
            (one) =>
                `${one.name}\n${one.said
                    .split('\n')
                    .slice(0, 12)
                    .map((line) => `    ${line}\n`)
                    .join('')}`,
        )
        .join(''),
);
const passed = tests.filter((one) => one.passed).length;
// A file that could not be read as tests has none, and fails as one.
const unread =
    kind === 'vitest'
        ? read.testResults.filter((suite) => suite.status === 'failed' && suite.assertionResults.length === 0).length
        : 0;
console.log(passed, tests.length - passed + unread);
