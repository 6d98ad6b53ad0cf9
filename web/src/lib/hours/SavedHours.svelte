<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, type Schemas } from '$lib/api/client';
  import { must, problemOf } from '$lib/api/problem';
  import HoursEditor from './HoursEditor.svelte';
  import { HoursState } from './HoursState.svelte';

  let { hours, hosts, me }: { hours: Schemas['HoursView']; hosts: Schemas['HostView'][]; me: Schemas['Me'] } = $props();

  // Made once a visit: what is typed must not be replaced by what a colleague saves meanwhile; saving tells of that.
  // svelte-ignore state_referenced_locally
  const editor = new HoursState({ name: hours.name, document: hours.document }, hours);

  async function remove(): Promise<void> {
    try {
      await must(api.DELETE('/api/hours/{id}', { params: { path: { id: hours.id } } }));
      await goto('/work/hours');
    } catch (thrown) {
      editor.problem = problemOf(thrown);
    }
  }
</script>

<HoursEditor {editor} {hosts} {me} onsaved={() => undefined} onremove={() => void remove()} />
