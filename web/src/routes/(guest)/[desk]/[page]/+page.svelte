<script lang="ts">
  import '../../../../guest.css';
  import GuestPage from '$lib/guest/GuestPage.svelte';
  import { publishedSource } from '$lib/guest/source';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>{data.page.title} – {data.page.workspace}</title></svelte:head>

{#key data.page.path}
  <GuestPage source={publishedSource(data.path, data.page, data.secret)} openings={data.openings} />
{/key}
