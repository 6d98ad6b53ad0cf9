<script lang="ts">
  import SavedPageEditor from '$lib/pages/SavedPageEditor.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>{data.page.form.title} – Loose Lantern</title></svelte:head>

{#key data.page.id}
  <SavedPageEditor
    page={data.page}
    hosts={data.hosts}
    desks={data.desks}
    calendars={data.calendars}
    pages={data.pages}
    me={data.me}
    tokens={data.tokens}
    guestFields={data.guestFields}
    record={data.record}
  />
{/key}
