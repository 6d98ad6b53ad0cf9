import { readdirSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

const css = readFileSync('src/look.css', 'utf8');
const sources = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .filter((file) => /\.(svelte|ts)$/.test(file) && !file.endsWith('.test.ts') && !file.endsWith('schema.ts'))
  .map((file) => ({ file, text: readFileSync(`src/${file}`, 'utf8') }));

// Colours of the scale that the component library draws with are ours too, but say nothing of what they are for.
const forbidden = [
  /#[0-9a-fA-F]{6}\b/,
  /\b(rgb|hsl)a?\(/,
  /\btext-\[[0-9]/,
  /\b(text|bg|border|ring|fill|stroke)-(white|black|(gray|red|green|blue|slate|amber|primary)-\d)/,
];

it('screens name colours and sizes of text by their tokens', () => {
  const found = sources
    .filter(({ file }) => file !== 'lib/ui/accent.ts')
    .flatMap(({ file, text }) =>
      forbidden.flatMap((kind) => [...(text.match(kind) ?? [])].slice(0, 1).map((it) => `${file}: ${it}`)),
    );
  expect(found).toEqual([]);
});

it('the colour of heads as a field takes it is the token', () => {
  const night = /--night: (#\w+);/.exec(css)?.[1];
  expect(night).toBeDefined();
  expect(readFileSync('src/lib/ui/accent.ts', 'utf8')).toContain(`'${String(night)}'`);
});
