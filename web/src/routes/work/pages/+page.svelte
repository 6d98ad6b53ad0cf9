<script lang="ts">
  import PageLine from '$lib/pages/PageLine.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const byDesk = $derived(
    data.desks
      .map((desk) => ({ desk, pages: data.pages.filter((page) => page.form.deskId === desk.id) }))
      .filter((group) => group.pages.length > 0),
  );
</script>

<svelte:head><title>Pages – Loose Lantern</title></svelte:head>

<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <h1 class="text-[26px]">Pages</h1>
  {#if data.me.isCoordinator}<ActionButton kind="main" href="/work/pages/new">New page</ActionButton>{/if}
</header>

{#if data.pages.length === 0}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">No page yet</h2>
    <p class="mt-1 mb-4 text-muted">A page offers one kind of appointment. Say who is booked, how long it takes and when it may be; guests then choose among the open times.</p>
    {#if data.me.isCoordinator}<ActionButton kind="main" href="/work/pages/new">Make the first page</ActionButton>{/if}
  </div>
{:else}
  <div class="space-y-6">
    {#each byDesk as group (group.desk.id)}
      <section aria-labelledby="desk-{group.desk.id}">
        <h2 id="desk-{group.desk.id}" class="mb-1.5 text-lg">{group.desk.name} <span class="font-sans text-sm font-normal text-muted">{group.desk.address}</span></h2>
        <ul class="overflow-hidden rounded-2xl border border-line bg-card">
          {#each group.pages as page (page.id)}<PageLine {page} />{/each}
        </ul>
      </section>
    {/each}
  </div>
{/if}
