<script lang="ts">
  import SavedLink from '$lib/links/SavedLink.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

{#key data.link.row.id}
  <SavedLink saved={data.link} setting={data} me={data.me} today={data.today} known={data.known} lately={data.lately} />
{/key}
