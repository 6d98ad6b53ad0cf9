import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';
import { leaveOutUnused } from './vite.unused';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit(), leaveOutUnused()],
  build: {
    rolldownOptions: {
      output: {
        // A phone asks for each file by itself: what every screen needs is one, and what a guest's page needs is
        // another.
        codeSplitting: {
          groups: [
            { name: 'svelte', test: /node_modules[\\/](svelte|@sveltejs|esm-env|clsx|devalue)[\\/]/, priority: 2 },
            {
              name: 'guest',
              test: /src[\\/]lib[\\/]guest[\\/](GuestPage|source|loading|LinkOver|NoneSuits)\./,
              priority: 1,
            },
          ],
        },
      },
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
