<script lang="ts">
  import WorkspaceForm from '$lib/start/WorkspaceForm.svelte';
  import Doorway from '$lib/ui/Doorway.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Make a workspace – Loose Lantern</title></svelte:head>

<Doorway title="Make a workspace">
  <WorkspaceForm link={data.link} />
</Doorway>
