<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Schemas } from '$lib/api/client';
  import HoursEditor from './HoursEditor.svelte';
  import { HoursState } from './HoursState.svelte';

  let { hours, hosts, me }: { hours: Schemas['HoursView']; hosts: Schemas['HostView'][]; me: Schemas['Me'] } = $props();

  // Made once a visit: what is typed must not be replaced by what a colleague saves meanwhile; saving tells of that.
  // svelte-ignore state_referenced_locally
  const editor = new HoursState({ name: hours.name, document: hours.document }, hours);

  async function remove(): Promise<void> {
    if (await editor.remove()) await goto('/work/hours');
  }
</script>

<HoursEditor {editor} {hosts} {me} onsaved={() => undefined} onremove={() => void remove()} />
