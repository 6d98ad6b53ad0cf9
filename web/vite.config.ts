import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  build: {
    rolldownOptions: {
      treeshake: {
        // The component library makes the styles of all its components as it is loaded; guests are to load those of the
        // few they see.
        manualPureFunctions: ['tv'],
        moduleSideEffects: [{ test: /node_modules[\\/]flowbite-svelte[\\/].*\.js$/, sideEffects: false }],
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4700' } },
  test: { include: ['src/**/*.test.ts'] },
});
