<script lang="ts">
  import RetentionEditor from '$lib/guests/RetentionEditor.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>How long guests are kept – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/guests">Guests</a></p>
<h1 class="text-page mb-4">How long guests are kept</h1>
<RetentionEditor saved={data.retention} zone={data.me.zone} />
