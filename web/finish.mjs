// After the builds: puts the script of the first view beside the other files, and notes for the server what each kind
// of guest's screen loads, so that its first answer can name all of it.
import { copyFileSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { brotliCompressSync, gzipSync } from 'node:zlib';

const GENERATED = '.svelte-kit/generated/client-optimized/nodes/';
const ROUTES = {
    page: '(guest)/[desk]/[page]/+page.svelte',
    desk: '(guest)/[desk]/+page.svelte',
    link: '(guest)/times/[address]/+page.svelte',
    booking: '(guest)/booking/[secret]/+page.svelte',
    answer: '(guest)/answer/[secret]/+page.svelte',
};

const manifest = JSON.parse(readFileSync('.svelte-kit/output/client/.vite/manifest.json', 'utf8'));
const index = readFileSync('build/index.html', 'utf8');

/** The manifest's key of the node of a route. */
function nodeOf(route) {
    const node = readdirSync(GENERATED).find((file) => readFileSync(GENERATED + file, 'utf8').includes(`/${route}`));
    if (!node) throw new Error(`There is no route ${route}.`);
    return GENERATED + node;
}

function withImports(key, found = new Set()) {
    if (found.has(key)) return found;
    found.add(key);
    for (const one of manifest[key].imports ?? []) withImports(one, found);
    return found;
}

const [script] = readdirSync('.svelte-kit/first').filter((file) => file.endsWith('.js'));
const path = `_app/immutable/${script}`;
copyFileSync(`.svelte-kit/first/${script}`, `build/${path}`);
const text = readFileSync(`build/${path}`);
writeFileSync(`build/${path}.br`, brotliCompressSync(text));
writeFileSync(`build/${path}.gz`, gzipSync(text, { level: 9 }));

const fonts = readdirSync('build/_app/immutable/assets')
    .filter((file) => /-plain\.[\w-]+\.woff2$/.test(file))
    .map((file) => `/_app/immutable/assets/${file}`);

const screens = Object.fromEntries(
    Object.entries(ROUTES).map(([kind, route]) => {
        const keys = [...withImports(nodeOf(route))].map((key) => manifest[key]);
        return [
            kind,
            {
                scripts: keys.map(({ file }) => `/${file}`).filter((file) => !index.includes(file)),
                styles: keys
                    .flatMap(({ css }) => css ?? [])
                    .map((file) => `/${file}`)
                    .filter((file) => !index.includes(file)),
            },
        ];
    }),
);
writeFileSync('build/first.json', JSON.stringify({ script: `/${path}`, fonts, screens }, null, 2));
