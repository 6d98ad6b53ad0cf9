<script lang="ts">
  import { goto } from '$app/navigation';
  import { Input } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import AskAgain from '$lib/links/AskAgain.svelte';
  import LinkLine from '$lib/links/LinkLine.svelte';
  import { askAnew } from '$lib/live/anew';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ListNav from '$lib/ui/ListNav.svelte';
  import { putPlace, type ListPlace } from '$lib/ui/listPlace';
  import Segments from '$lib/ui/Segments.svelte';
  import { TypedSearch } from '$lib/ui/TypedSearch.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
  const search = new TypedSearch(() => data.search);

  type Which = Schemas['LinkState'] | '';
  const choices: readonly { value: Which; text: string }[] = [
    { value: '', text: 'All' },
    { value: 'draft', text: 'Draft' },
    { value: 'out', text: 'Out' },
    { value: 'opened', text: 'Opened' },
    { value: 'booked', text: 'Booked' },
    { value: 'ended', text: 'Ended' },
    { value: 'revoked', text: 'Revoked' },
  ];

  let asking = $state.raw<Schemas['LinkRow'] | undefined>(undefined);

  function show(next: { state?: Which; search?: string; place?: ListPlace }): void {
    const query = new URLSearchParams();
    const chosen = { state: data.state ?? '', search: search.text, place: {} as ListPlace, ...next };
    search.text = chosen.search;
    if (chosen.state !== '') query.set('state', chosen.state);
    if (chosen.search) query.set('search', chosen.search);
    putPlace(query, chosen.place);
    void goto(query.size > 0 ? `?${query}` : '?', {
      replaceState: true,
      keepFocus: true,
      noScroll: next.place === undefined || next.place === data.place,
    });
  }
</script>

<svelte:head><title>Links – Loose Lantern</title></svelte:head>

<header class="mb-4 flex flex-wrap items-center justify-between gap-x-5 gap-y-3">
  <div class="flex flex-wrap items-center gap-x-5 gap-y-3">
    <h1 class="text-page">Links</h1>
    <Segments label="Which links" options={choices} value={data.state ?? ''} onchoose={(state) => show({ state })} />
    <div class="w-48">
      <Input
        type="search"
        aria-label="Search by guest, title or notes"
        placeholder="Guest, title or notes"
        class="py-1.5"
        bind:value={() => search.text, (typed) => show({ search: typed ?? '' })}
      />
    </div>
  </div>
  {#if data.me.isCoordinator}
    <div class="ml-auto flex flex-wrap gap-2">
      {#if data.links.mailings > 0}<ActionButton href="/work/guests/mailings"
          >{counted(data.links.mailings, 'mailing', 'mailings')}</ActionButton
        >{/if}
      <ActionButton href="/work/links/new?ours=1">A time among ourselves</ActionButton>
      <ActionButton kind="main" href="/work/links/new">New link</ActionButton>
    </div>
  {/if}
</header>

{#if data.links.total === 0}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">{data.search || data.state ? 'No link matches' : 'No link yet'}</h2>
    <p class="mt-1 mb-4 text-muted">
      {data.search || data.state
        ? 'Search by a part of the guest’s name, the title or the notes, or show all of them.'
        : 'A link offers times to one guest in a message: pick them on the board, hold them if you like, and copy the text. Those waiting longest for an answer come first.'}
    </p>
    {#if data.search || data.state}<ActionButton onclick={() => show({ state: '', search: '' })}>Show all</ActionButton
      >{:else if data.me.isCoordinator}<ActionButton kind="main" href="/work/links/new"
        >Make the first link</ActionButton
      >{/if}
  </div>
{:else}
  <ul class="overflow-hidden rounded-2xl border border-line bg-card" aria-label="Links">
    {#each data.links.rows as row (row.id)}<LinkLine
        {row}
        now={data.links.now}
        zone={data.me.zone}
        mayEdit={data.me.isCoordinator}
        onask={() => (asking = row)}
      />{/each}
  </ul>
  <ListNav label="More links" list={data.links} shown={data.links.rows.length} onplace={(place) => show({ place })} />
{/if}

{#if asking}
  <AskAgain
    row={asking}
    onasked={() => {
      asking = undefined;
      void askAnew();
    }}
    onclose={() => (asking = undefined)}
  />
{/if}
