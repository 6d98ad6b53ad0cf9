// Wraps comments at 120 columns, which the formatters of code leave as they are. Only a paragraph that has a longer
// line is wrapped anew; everything else stays as it was written.
//   node scripts/comments.mjs FILE...          wraps them in place
//   node scripts/comments.mjs --check FILE...  only names the files that would change, and ends with 1 where there are any
import { readFileSync, writeFileSync } from 'node:fs';

const COLUMNS = 120;
const BLOCK = /^<\/?(summary|param|typeparam|returns|remarks|exception|para|list|item|code|value)\b/;

const args = process.argv.slice(2);
const check = args[0] === '--check';
const changed = [];
for (const file of check ? args.slice(1) : args) {
    const text = readFileSync(file, 'utf8');
    const wrapped = wrapFile(text, file.endsWith('.sh') || file.endsWith('lantern') ? ['#'] : ['///', '//', '*']);
    if (wrapped === text) continue;
    changed.push(file);
    if (!check) writeFileSync(file, wrapped);
}

if (check && changed.length > 0) {
    console.log(`Comments wider than ${COLUMNS} columns; ./lantern format wraps them:\n${changed.join('\n')}`);
    process.exit(1);
}

function wrapFile(text, markers) {
    const lines = text.split('\n');
    const out = [];
    for (let at = 0; at < lines.length;) {
        const block = lines[at].match(/^(\s*)\/\*\* (.*) \*\/$/);
        if (block && lines[at].length > COLUMNS) {
            out.push(`${block[1]}/**`, ...fill(`${block[1]} * `, block[2]), `${block[1]} */`);
            at++;
            continue;
        }

        const first = comment(lines[at], markers);
        if (!first) {
            out.push(lines[at++]);
            continue;
        }

        const run = [];
        for (; at < lines.length; at++) {
            const line = comment(lines[at], markers);
            if (line?.prefix !== first.prefix) break;
            run.push(line.words);
        }

        out.push(...wrapRun(first.prefix, run));
    }

    return out.join('\n');
}

function comment(line, markers) {
    for (const marker of markers) {
        const found = line.match(new RegExp(`^(\\s*${marker.replaceAll('*', '\\*').replaceAll('/', '\\/')} )(\\S.*)$`));
        if (found) return { prefix: found[1], words: found[2] };
    }

    return null;
}

function wrapRun(prefix, run) {
    const paragraphs = [];
    run.forEach((words, at) => {
        const before = run[at - 1];
        const begins =
            !before ||
            BLOCK.test(words) ||
            /<\/?(summary|para|list|item|code|remarks)>$/.test(before) ||
            /^([-*+]|\d+\.) /.test(words) ||
            /<\/(param|typeparam|returns|exception)>$/.test(before);
        if (begins) paragraphs.push([words]);
        else paragraphs.at(-1).push(words);
    });
    return paragraphs.flatMap((paragraph) => {
        if (paragraph.every((words) => (prefix + words).length <= COLUMNS))
            return paragraph.map((words) => prefix + words);
        const whole = paragraph.join(' ');
        const summary = whole.match(/^<summary>(.*)<\/summary>$/);
        return summary
            ? [`${prefix}<summary>`, ...fill(prefix, summary[1].trim()), `${prefix}</summary>`]
            : fill(prefix, whole);
    });
}

/** The words on lines of at most so many columns; a tag is never broken. */
function fill(prefix, text) {
    const words = text.match(/(?:<[^<>]*>|[^\s<]|<)+/g) ?? [];
    const lines = [];
    let line = '';
    for (const word of words) {
        if (line && (prefix + line + ' ' + word).length > COLUMNS) {
            lines.push(prefix + line);
            line = word;
        } else line = line ? `${line} ${word}` : word;
    }

    return line ? [...lines, prefix + line] : lines;
}
