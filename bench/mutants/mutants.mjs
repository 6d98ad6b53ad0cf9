// Breaks lines of Core one at a time and counts how many of those faults the tests notice.
//   node bench/mutants/mutants.mjs [--count 100] [--seed 1] [--only FOLDER]
// Works on a copy of the checkout, so that nothing here is ever left broken. Core.Tests are asked first, then
// Formats.Tests, whose case files are computed as well. A mutant that does not compile is passed over, and so is one
// that changes nothing anybody could see (alike.json, each with its reason); one that makes the tests hang is noticed.
import { execFileSync, spawnSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const options = new Map(
    process.argv.slice(2).flatMap((word, at, all) => (word.startsWith('--') ? [[word, all[at + 1]]] : [])),
);
const count = Number(options.get('--count') ?? 100);
const only = options.get('--only') ?? '';
const PATIENCE = 480_000;
const ALIKE = JSON.parse(readFileSync(new URL('alike.json', import.meta.url), 'utf8'));

/** What is put in the place of what; each match on a line is a mutant of its own. */
const OPERATORS = [
    [/ <= /g, ' < '],
    [/ < /g, ' <= '],
    [/ >= /g, ' > '],
    [/ > /g, ' >= '],
    [/ == /g, ' != '],
    [/ != /g, ' == '],
    [/ && /g, ' || '],
    [/ \|\| /g, ' && '],
    [/ \+ /g, ' - '],
    [/ - /g, ' + '],
    [/ is not null/g, ' is null'],
    [/ is null/g, ' is not null'],
    [/\btrue\b/g, 'false'],
    [/\bfalse\b/g, 'true'],
    [/\.OrderBy\(/g, '.OrderByDescending('],
    [/\.OrderByDescending\(/g, '.OrderBy('],
    [/\.ThenBy\(/g, '.ThenByDescending('],
    [/\bMin\(/g, 'Max('],
    [/\bMax\(/g, 'Min('],
    [/\.Any\(/g, '.All('],
    [/\.All\(/g, '.Any('],
    [/PlusDays\(1\)/g, 'PlusDays(0)'],
    [/PlusDays\(-1\)/g, 'PlusDays(0)'],
    [/\.Distinct\(\)/g, ''],
    [/\.Where\([^()]*(?:\([^()]*\)[^()]*)*\)/g, ''],
    [/!(?=[a-z_][\w.]*\()/gi, ''],
    [/\bcontinue;/g, 'break;'],
    [/(?<=[(, ])1(?=[), ;])/g, '2'],
    [/(?<=[(, ])0(?=[), ;])/g, '1'],
];

const root = execFileSync('git', ['rev-parse', '--show-toplevel'], { encoding: 'utf8' }).trim();
const copy = mkdtempSync(join(tmpdir(), 'lantern-mutants-'));
const output = (project) => join(copy, `tests/${project}.Tests/bin/Release/net10.0`);
const built = join(copy, 'src/LooseLantern.Core/bin/Release/net10.0/LooseLantern.Core.dll');
const BUILD = [
    'build',
    'src/LooseLantern.Core',
    '-c',
    'Release',
    '--no-restore',
    '-p:RunAnalyzers=false',
    '-p:GenerateDocumentationFile=false',
    '-p:UseSharedCompilation=true',
];

try {
    execFileSync('git', ['clone', '-q', root, copy]);
    for (const project of ['Core', 'Formats'])
        run('dotnet', ['build', `tests/${project}.Tests`, '-c', 'Release'], 600_000, true);
    const mutants = shuffled(
        readdirSync(join(copy, 'src/LooseLantern.Core'), { recursive: true })
            .filter((file) => file.endsWith('.cs') && !/(^|\/)(bin|obj)\//.test(file) && file.startsWith(only))
            .sort()
            .flatMap(mutantsOf),
    );
    const survivors = [];
    let [tried, noticed] = [0, 0];
    for (const mutant of mutants) {
        if (tried === count) break;
        if (ALIKE.some((one) => one.file === mutant.file && one.after === mutant.after.trim())) continue;
        const file = join(copy, 'src/LooseLantern.Core', mutant.file);
        const whole = readFileSync(file, 'utf8');
        const lines = whole.split('\n');
        lines[mutant.line] = mutant.after;
        writeFileSync(file, lines.join('\n'));
        const compiled = run('dotnet', BUILD, 120_000);
        writeFileSync(file, whole);
        if (!compiled) continue;
        tried++;
        const isNoticed = ['Core', 'Formats'].some((project) => {
            copyFileSync(built, join(output(project), 'LooseLantern.Core.dll'));
            return !run('dotnet', [join(output(project), `${project}.Tests.dll`), '-stopOnFail'], PATIENCE);
        });
        if (isNoticed) noticed++;
        else survivors.push(mutant);
        if (!isNoticed)
            console.log(
                `UNNOTICED ${mutant.file}:${mutant.line + 1}\n  - ${mutant.before.trim()}\n  + ${mutant.after.trim()}`,
            );
        if (tried % 10 === 0) console.log(`${noticed} of ${tried} noticed`);
    }

    console.log(`\n${noticed} of ${tried} noticed, of ${mutants.length} that could be tried`);
} finally {
    rmSync(copy, { recursive: true, force: true });
}

function mutantsOf(file) {
    return readFileSync(join(copy, 'src/LooseLantern.Core', file), 'utf8')
        .split('\n')
        .flatMap((before, line) => {
            const code = before
                .replace(/\/\/.*$/, '')
                .replace(/"(?:[^"\\]|\\.)*"/g, (text) => '"'.padEnd(text.length - 1, '_') + '"');
            if (/^\s*(\/\/|\[|using |namespace |throw )|ThrowIf|operator /.test(before)) return [];
            return OPERATORS.flatMap(([pattern, put]) =>
                [...code.matchAll(pattern)].map((match) => ({
                    file,
                    line,
                    before,
                    after: before.slice(0, match.index) + put + before.slice(match.index + match[0].length),
                })),
            );
        });
}

function run(command, args, patience, must = false) {
    const done = spawnSync(command, args, { cwd: copy, timeout: patience, encoding: 'utf8', killSignal: 'SIGKILL' });
    if (must && done.status !== 0) throw new Error(`${command} ${args.join(' ')}: ${done.stdout}`);
    return done.status === 0;
}

/** In an order that a seed decides (mulberry32), so that a run can be had again. */
function shuffled(all) {
    let state = Number(options.get('--seed') ?? 1);
    const random = () => {
        state = (state + 0x6d2b79f5) | 0;
        let t = Math.imul(state ^ (state >>> 15), 1 | state);
        t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
        return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
    };
    return all
        .map((one) => [random(), one])
        .sort((a, b) => a[0] - b[0])
        .map((pair) => pair[1]);
}
