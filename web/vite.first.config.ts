import { svelte, vitePreprocess } from '@sveltejs/vite-plugin-svelte';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

// The script that draws a guest's first view: the screen's own components, as they are compiled to make text.
export default defineConfig({
  plugins: [svelte({ configFile: false, preprocess: vitePreprocess(), compilerOptions: { runes: true } })],
  resolve: {
    alias: { $lib: here('src/lib'), $words: here('../words'), devalue: here('src/lib/guest/first/noDevalue.ts') },
  },
  define: { 'process.env.NODE_ENV': '"production"' },
  ssr: { noExternal: true, target: 'webworker' },
  publicDir: false,
  build: {
    ssr: here('src/lib/guest/first/draw.ts'),
    outDir: '.svelte-kit/first',
    minify: true,
    rolldownOptions: { output: { format: 'iife', entryFileNames: 'first.[hash].js' } },
  },
});
