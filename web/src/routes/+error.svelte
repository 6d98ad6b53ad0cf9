<script lang="ts">
  import { page } from '$app/state';

  const isMissing = $derived(page.status === 404);
</script>

<svelte:head><title>{isMissing ? 'Not found' : 'Trouble'} – Loose Lantern</title></svelte:head>

<main class="mx-auto max-w-xl px-6 py-24">
  {#if isMissing}
    <h1 class="text-3xl">There is nothing at this address</h1>
    <p class="mt-3 text-muted">{page.error?.message}. Check the address, or ask whoever gave it to you.</p>
  {:else}
    <h1 class="text-3xl">This can’t be shown just now</h1>
    <p class="mt-3 text-muted">{page.error?.message}. Wait a moment, then load the page again.</p>
  {/if}
</main>
