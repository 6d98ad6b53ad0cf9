<script lang="ts">
  import { page } from '$app/state';
  import { say } from '$lib/words/say.svelte';

  const isMissing = $derived(page.status === 404);
  const what = $derived(page.error?.message ?? '');
</script>

<svelte:head><title>{isMissing ? say('missing.tab') : say('trouble.tab')} – Loose Lantern</title></svelte:head>

<main class="mx-auto max-w-xl px-6 py-24">
  {#if isMissing}
    <h1 class="text-3xl">{say('missing.title')}</h1>
    <p class="mt-3 text-muted">{say('missing.detail', { what })}</p>
  {:else}
    <h1 class="text-3xl">{say('trouble.title')}</h1>
    <p class="mt-3 text-muted">{say('trouble.detail', { what })}</p>
  {/if}
</main>
