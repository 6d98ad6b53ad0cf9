// Before the build: the typefaces with the letters and weights that our languages and screens use, in half the bytes.
// Other letters come from the whole files, which look.css names as well.
import subsetFont from 'subset-font';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';

const OUT = '.svelte-kit/fonts/';

// As in look.css.
const RANGES = [
    [0x20, 0x7e],
    [0xa0, 0xff],
    [0x152, 0x153],
    [0x2013, 0x2014],
    [0x2018, 0x201e],
    [0x2022, 0x2022],
    [0x2026, 0x2026],
    [0x2032, 0x2033],
    [0x2039, 0x203a],
    [0x20ac, 0x20ac],
    [0x2212, 0x2212],
];

const letters = RANGES.flatMap(([from, to]) =>
    Array.from({ length: to - from + 1 }, (_, at) => String.fromCharCode(from + at)),
).join('');

const FACES = [
    // Headings are all of one weight.
    { name: 'bricolage-grotesque', axes: { wght: 650 } },
    { name: 'atkinson-hyperlegible-next', axes: { wght: { min: 400, max: 700 } } },
];

mkdirSync(OUT, { recursive: true });
for (const { name, axes } of FACES) {
    const whole = readFileSync(`node_modules/@fontsource-variable/${name}/files/${name}-latin-wght-normal.woff2`);
    const font = await subsetFont(whole, letters, { targetFormat: 'woff2', variationAxes: axes });
    writeFileSync(`${OUT}${name}-plain.woff2`, font);
}
