<script lang="ts">
  import { page } from '$app/state';
  import { say } from '$lib/words/say.svelte';

  /** `isInside` where the screen that it stands in has its main part already. */
  let { isInside = false }: { isInside?: boolean } = $props();

  const isMissing = $derived(page.status === 404);
  // What the framework says of its own is English, and tells nobody anything.
  const what = $derived(['Not Found', 'Internal Error'].includes(page.error?.message ?? '') ? '' : page.error?.message);
  const detail = $derived(
    say(isMissing ? 'missing.detail' : 'trouble.detail', { what: what ?? '' }).replace(/^[.\s]+/, ''),
  );
</script>

<svelte:head><title>{isMissing ? say('missing.tab') : say('trouble.tab')} – Loose Lantern</title></svelte:head>

<svelte:element this={isInside ? 'div' : 'main'} class="mx-auto max-w-xl px-6 py-24">
  <h1 class="text-3xl">{isMissing ? say('missing.title') : say('trouble.title')}</h1>
  <p class="mt-3 text-muted">{detail}</p>
</svelte:element>
