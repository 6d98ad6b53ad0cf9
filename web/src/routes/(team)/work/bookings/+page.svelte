<script lang="ts">
  import { goto } from '$app/navigation';
  import { api } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import CancelModal from '$lib/bookings/CancelModal.svelte';
  import { Input } from 'flowbite-svelte';
  import type { Appointment } from '$lib/bookings/appointments';
  import BookingTable from '$lib/bookings/BookingTable.svelte';
  import { askAnew } from '$lib/live/anew';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ListNav from '$lib/ui/ListNav.svelte';
  import { putPlace, type ListPlace } from '$lib/ui/listPlace';
  import Segments from '$lib/ui/Segments.svelte';
  import { TypedSearch } from '$lib/ui/TypedSearch.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
  const search = new TypedSearch(() => data.search);

  type Which = 'upcoming' | 'past' | 'cancelled';
  const which = $derived<Which>(data.cancelled ? 'cancelled' : data.past ? 'past' : 'upcoming');
  const exported = $derived.by(() => {
    const query = new URLSearchParams();
    if (data.past) query.set('past', 'true');
    if (data.cancelled) query.set('cancelled', 'true');
    if (data.search) query.set('search', data.search);
    return query.size > 0 ? `?${query}` : '';
  });
  let cancelling = $state.raw<Appointment | undefined>(undefined);

  function show(next: { which?: Which; search?: string; place?: ListPlace }): void {
    const query = new URLSearchParams();
    const chosen = { which, search: search.text, place: {} as ListPlace, ...next };
    if (chosen.which !== 'upcoming') query.set('when', chosen.which);
    search.text = chosen.search;
    if (chosen.search) query.set('search', chosen.search);
    putPlace(query, chosen.place);
    void goto(query.size > 0 ? `?${query}` : '?', {
      replaceState: true,
      keepFocus: true,
      noScroll: next.place === undefined || next.place === data.place,
    });
  }
</script>

<svelte:head><title>Bookings – Loose Lantern</title></svelte:head>

<header class="mb-4 flex flex-wrap items-center gap-x-5 gap-y-3">
  <h1 class="text-page">Bookings</h1>
  <Segments
    label="Which bookings"
    options={[
      { value: 'upcoming', text: 'To come' },
      { value: 'past', text: 'Past' },
      { value: 'cancelled', text: 'Cancelled' },
    ]}
    value={which}
    onchoose={(chosen) => show({ which: chosen })}
  />
  <div class="w-60">
    <Input
      type="search"
      aria-label="Search by guest or page"
      placeholder="Guest or page"
      class="py-1.5"
      bind:value={() => search.text, (typed) => show({ search: typed ?? '' })}
    />
  </div>
  {#if data.me.isCoordinator}<ActionButton class="ml-auto" href="/work/bookings/flagged">Flagged</ActionButton>{/if}
</header>

{#if data.bookings.total === 0}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">
      {data.search
        ? `Nothing matches “${data.search}”`
        : data.cancelled
          ? 'Nothing was cancelled'
          : data.past
            ? 'Nothing has taken place yet'
            : 'Nothing is booked'}
    </h2>
    <p class="mt-1 text-muted">
      {data.search
        ? 'Search by a part of the guest’s name, their email, or the page’s title.'
        : 'Bookings appear here as soon as a guest reserves a time on one of your pages.'}
    </p>
    {#if !data.search && which === 'upcoming'}<ActionButton href="/work/pages" class="mt-4"
        >Go to your pages</ActionButton
      >{/if}
  </div>
{:else}
  <BookingTable
    rows={data.bookings.rows}
    zone={data.me.zone}
    now={data.bookings.now}
    oncancel={(appointment) => (cancelling = appointment)}
  />
  {#if data.me.isCoordinator}
    <p class="mt-3 text-fine text-muted">
      Export these bookings: <a class="underline underline-offset-4" download href="/api/bookings/export.csv{exported}"
        >CSV</a
      >
    </p>
  {/if}
  <ListNav
    label="More bookings"
    list={data.bookings}
    shown={data.bookings.rows.length}
    onplace={(place) => show({ place })}
  />
{/if}

{#if cancelling}
  {@const { row, isShared, coming } = cancelling}
  <CancelModal
    booking={isShared ? `${row.page} for all ${coming} who come` : `the booking of ${row.guestName}`}
    reader={isShared ? 'everyone who comes' : row.guestName}
    cancel={(word) =>
      isShared
        ? must(api.POST('/api/sessions/{id}/cancel', { params: { path: { id: row.sessionId } }, body: { word } }))
        : must(api.POST('/api/bookings/{id}/cancel', { params: { path: { id: row.id } }, body: { word } }))}
    oncancelled={() => {
      cancelling = undefined;
      void askAnew();
    }}
    onclose={() => (cancelling = undefined)}
  />
{/if}
