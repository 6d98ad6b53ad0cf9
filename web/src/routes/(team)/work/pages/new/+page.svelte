<script lang="ts">
  import { goto } from '$app/navigation';
  import { EditorState } from '$lib/pages/EditorState.svelte';
  import { newForm } from '$lib/pages/form';
  import UsualSourcesNote from '$lib/usual/UsualSourcesNote.svelte';
  import PageEditor from '$lib/pages/PageEditor.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  // Made once a visit: what is typed stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  const { me, hosts, desks, usual } = data;
  const own = hosts.find((host) => host.id === me.hostId) ?? hosts.find((host) => host.mayOffer);
  const editor = new EditorState(newForm(me.workspaceZone, desks[0]?.id ?? '', own?.id ?? '', usual.now));
</script>

<svelte:head><title>New page – Loose Lantern</title></svelte:head>

<UsualSourcesNote usual={data.usual} />
<PageEditor
  {editor}
  hosts={data.hosts}
  desks={data.desks}
  calendars={data.calendars}
  pages={data.pages}
  me={data.me}
  tokens={data.tokens}
  guestFields={data.guestFields}
  onsaved={(page) => void goto(`/work/pages/${page.id}`, { replaceState: true })}
/>
