import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { expect, it } from 'vitest';

const GUESTS = 'src/routes/(guest)';
const LIBRARY = 'node_modules/flowbite-svelte/dist';

/** The folders and files that guest.css takes classes from, from web/ on. */
const sources = [...readFileSync('src/guest.css', 'utf8').matchAll(/^@source '([^']+)';$/gm)].flatMap(
  ([, path = '']) => {
    const [head = '', names, tail = ''] = path.split(/\{|\}/);
    return names ? names.split(',').map((name) => join('src', head + name + tail)) : [join('src', path)];
  },
);

function isCovered(file: string): boolean {
  return sources.some((source) => file === source || file.startsWith(`${source}/`));
}

function resolved(from: string, name: string): string | undefined {
  const path = name.startsWith('$lib/') ? join('src/lib', name.slice(5)) : join(dirname(from), name);
  return [path, `${path}.ts`].find((file) => /\.(svelte|ts)$/.test(file) && existsSync(file));
}

/** All that a guest's screen is made from. */
function reached(file: string, found = new Set<string>()): Set<string> {
  if (found.has(file)) return found;
  found.add(file);
  for (const [, name = ''] of readFileSync(file, 'utf8').matchAll(/(?:from|import)\s*\(?\s*'([$.][^']*)'/g)) {
    const next = resolved(file, name);
    if (next) reached(next, found);
  }
  return found;
}

const files = reached('src/routes/+error.svelte');
for (const name of readdirSync(GUESTS, { recursive: true, encoding: 'utf8' })) {
  if (/\.(svelte|ts)$/.test(name)) reached(join(GUESTS, name), files);
}

it('knows the classes of every part of a guest’s screen', () => {
  const parts = [...files].filter((file) => file.endsWith('.svelte') && !file.startsWith('src/routes/+'));
  expect(parts.length).toBeGreaterThan(30);
  expect(parts.filter((file) => !isCovered(file))).toEqual([]);
});

it('knows the classes of every part of the component library that a guest’s screen is made from', () => {
  const library = readdirSync(LIBRARY, { recursive: true, encoding: 'utf8' });
  const names = [...files].flatMap((file) =>
    [...readFileSync(file, 'utf8').matchAll(/import \{([^}]*)\} from 'flowbite-svelte'/g)].flatMap(([, list = '']) =>
      list.split(',').map((name) => name.trim()),
    ),
  );
  const parts = [...new Set(names)].map((name) => library.find((file) => file.endsWith(`/${name}.svelte`)) ?? name);
  expect(parts.length).toBeGreaterThan(3);
  expect(parts.filter((file) => !isCovered(join(LIBRARY, file)))).toEqual([]);
});
