<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>Not found – Loose Lantern</title></svelte:head>

<main class="mx-auto max-w-xl px-6 py-24">
  <h1 class="text-3xl">There is nothing at this address</h1>
  <p class="mt-3 text-muted">{page.error?.message}. Check the address, or ask whoever gave it to you.</p>
</main>
