<script lang="ts">
  import { goto } from '$app/navigation';
  import { EditorState } from '$lib/pages/EditorState.svelte';
  import { newForm } from '$lib/pages/form';
  import PageEditor from '$lib/pages/PageEditor.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  // Made once a visit: what is typed stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  const { me, hosts, desks } = data;
  const own = hosts.find((host) => host.name === me.name) ?? hosts[0];
  const editor = new EditorState(newForm(me.zone, desks[0]?.id ?? '', own?.id ?? ''));
</script>

<svelte:head><title>New page – Loose Lantern</title></svelte:head>

<PageEditor
  {editor}
  hosts={data.hosts}
  desks={data.desks}
  calendars={data.calendars}
  mayEdit={data.me.isCoordinator}
  onsaved={(page) => void goto(`/work/pages/${page.id}`, { replaceState: true })}
/>
