<script lang="ts">
  import SavedHours from '$lib/hours/SavedHours.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>{data.hours.name} – Loose Lantern</title></svelte:head>

{#key data.hours.id}
  <SavedHours hours={data.hours} hosts={data.hosts} me={data.me} />
{/key}
