<script lang="ts">
  import DeskEditor from '$lib/desks/DeskEditor.svelte';
  import NewDesk from '$lib/desks/NewDesk.svelte';
  import { askAnew } from '$lib/live/anew';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  let opening = $state(false);
</script>

<svelte:head><title>Desks – Loose Lantern</title></svelte:head>

<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <div>
    <h1 class="text-page">Desks</h1>
    <p class="text-muted">
      A desk is the front that guests see: its address lists the pages that are meant to be seen.
    </p>
  </div>
  {#if data.me.isCoordinator}<ActionButton kind="main" onclick={() => (opening = true)}>New desk</ActionButton>{/if}
</header>

<div class="max-w-4xl space-y-5">
  {#each data.desks as desk (desk.id)}
    <DeskEditor {desk} hosts={data.hosts} mayEdit={data.me.isCoordinator} onchanged={() => void askAnew()} />
  {/each}
</div>

{#if opening}
  <NewDesk
    hosts={data.hosts}
    onmade={() => {
      opening = false;
      void askAnew();
    }}
    onclose={() => (opening = false)}
  />
{/if}
