<script lang="ts">
  import { goto } from '$app/navigation';
  import HoursEditor from '$lib/hours/HoursEditor.svelte';
  import { HoursState } from '$lib/hours/HoursState.svelte';
  import { usualHours } from '$lib/hours/week';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  // Made once a visit.
  // svelte-ignore state_referenced_locally
  const editor = new HoursState({
    name: '',
    document: usualHours(data.hosts.find((host) => host.id === data.me.hostId)?.zone ?? data.me.zone),
  });
</script>

<svelte:head><title>New hours – Loose Lantern</title></svelte:head>

<HoursEditor
  {editor}
  hosts={data.hosts}
  me={data.me}
  onsaved={(hours) => void goto(`/work/hours/${hours.id}`, { replaceState: true })}
/>
