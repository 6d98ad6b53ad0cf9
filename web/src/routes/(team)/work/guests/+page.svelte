<script lang="ts">
  import { afterNavigate, goto } from '$app/navigation';
  import { Input } from 'flowbite-svelte';
  import { api } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import {
    everybody,
    filterIn,
    isEverybody,
    isSameFilter,
    putFilter,
    withoutDefaults,
    type GuestFilter,
  } from '$lib/guests/filter';
  import GuestChoice from '$lib/guests/GuestChoice.svelte';
  import GuestTable from '$lib/guests/GuestTable.svelte';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ListNav from '$lib/ui/ListNav.svelte';
  import { putPlace, type ListPlace } from '$lib/ui/listPlace';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import SavedViews from '$lib/ui/SavedViews.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
  /** What was chosen last, until its answer is shown: the next choice counts beside it, however fast it follows. */
  let asked = $state.raw<GuestFilter | undefined>(undefined);
  const filter = $derived(asked ?? data.filter);
  const people = $derived(data.people);
  const exported = $derived(`?filter=${encodeURIComponent(JSON.stringify(withoutDefaults(data.filter)))}`);

  const toThese = $derived.by(() => {
    const query = new URLSearchParams({ from: 'list' });
    putFilter(query, data.filter);
    return query.toString();
  });

  afterNavigate(({ type, to }) => {
    if (asked && (type !== 'goto' || (to && isSameFilter(filterIn(to.url.searchParams), asked)))) asked = undefined;
  });

  function show(chosen: GuestFilter, place: ListPlace = {}): void {
    const query = new URLSearchParams();
    asked = chosen;
    putFilter(query, chosen);
    putPlace(query, place);
    void goto(query.size > 0 ? `?${query}` : '?', { replaceState: true, keepFocus: true, noScroll: true });
  }
</script>

<svelte:head><title>Guests – Loose Lantern</title></svelte:head>

<header class="mb-2 flex flex-wrap items-center gap-x-5 gap-y-3">
  <h1 class="text-page">Guests</h1>
  <div class="w-60">
    <Input
      type="search"
      aria-label="Search guests"
      placeholder="Name, email, phone"
      class="py-1.5"
      bind:value={() => filter.search, (typed) => show({ ...filter, search: typed ?? '' })}
    />
  </div>
  <Segments
    label="Order"
    options={[
      { value: 'name', text: 'By name' },
      { value: 'newest', text: 'Newest first' },
    ]}
    value={filter.order === 'newest' ? 'newest' : 'name'}
    onchoose={(order) => show({ ...filter, order })}
  />
  <div class="ml-auto flex flex-wrap gap-3">
    {#if data.me.isCoordinator}
      <ActionButton href="/work/guests/mailings">Mailings</ActionButton>
      <ActionButton href="/work/guests/letters">Letters</ActionButton>
      <ActionButton href="/work/guests/import">Import</ActionButton>
    {/if}
    {#if data.me.isOwner}
      <ActionButton href="/work/guests/retention">Retention</ActionButton>
      <ActionButton href="/work/guests/fields">Fields</ActionButton>
    {/if}
    {#if data.me.isCoordinator}<ActionButton kind="main" href="/work/guests/new">New guest</ActionButton>{/if}
  </div>
</header>

<div class="mb-3">
  <SavedViews
    views={data.views}
    {filter}
    whole="Everybody"
    isWhole={isEverybody(filter)}
    mayChange={data.me.isCoordinator}
    isSame={isSameFilter}
    save={(name) => must(api.PUT('/api/guests/views', { body: { name, filter } }))}
    remove={(id) => must(api.DELETE('/api/guests/views/{id}', { params: { path: { id } } }))}
    onchoose={(chosen) => show({ ...everybody, ...chosen })}
  />
</div>
<div class="mb-4">
  <GuestChoice
    {filter}
    {people}
    fields={data.fields}
    mend={mendOf(data.problem, 'fields')}
    onchange={(chosen) => show(chosen)}
  />
</div>

{#if data.problem && !mendOf(data.problem, 'fields')}
  <ProblemNote problem={data.problem} />
{:else if data.guests?.total === 0}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">{isEverybody(filter) ? 'No guests yet' : 'No guest is like that'}</h2>
    <p class="mt-1 text-muted">
      {isEverybody(filter)
        ? 'Whoever books or gets a link appears here by themselves.'
        : 'Take a condition away, or search by a part of the name, email, organisation or phone number.'}
    </p>
  </div>
{:else if data.guests}
  <p role="status" class="sr-only">{counted(data.guests.total, 'guest', 'guests')}</p>
  <GuestTable rows={data.guests.rows} zone={data.me.zone} now={data.guests.now} />
  {#if data.me.isCoordinator}
    <p class="mt-3 text-fine text-muted">
      <a class="underline underline-offset-4" href="/work/guests/mailings/new?{toThese}">Write to these guests</a>.
      Export them: <a class="underline underline-offset-4" download href="/api/guests/export.csv{exported}">CSV</a>,
      <a class="underline underline-offset-4" download href="/api/guests/export.vcf{exported}">vCard</a>
    </p>
  {/if}
  <ListNav
    label="More guests"
    list={data.guests}
    shown={data.guests.rows.length}
    onplace={(place) => show(filter, place)}
  />
{/if}
