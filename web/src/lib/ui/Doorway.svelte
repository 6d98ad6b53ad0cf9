<script lang="ts">
  import type { Snippet } from 'svelte';

  /** The frame of the screens before the work: signing in, making a workspace. */
  let { title, children }: { title: string; children: Snippet } = $props();
</script>

<div class="grid min-h-screen md:grid-cols-[minmax(280px,38%)_1fr]">
  <header class="relative overflow-hidden bg-night px-6 py-8 text-on-dark md:px-12 md:py-16">
    <div
      aria-hidden="true"
      class="absolute inset-0 bg-[radial-gradient(circle_at_70%_75%,color-mix(in_srgb,var(--glow-light)_50%,transparent),transparent_38%)]"
    ></div>
    <div class="relative">
      <p class="font-heading text-2xl leading-tight font-bold">
        Loose<br /><span class="text-glow-pale">Lantern</span>
      </p>
      <p class="mt-4 max-w-72 text-on-night max-md:hidden">Open time, shown to those who are meant to have it.</p>
    </div>
  </header>
  <main class="w-full max-w-xl px-6 py-10 md:px-16 md:py-24">
    <h1 class="mb-6 text-3xl">{title}</h1>
    {@render children()}
  </main>
</div>
