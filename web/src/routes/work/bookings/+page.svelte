<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { Input, Skeleton } from 'flowbite-svelte';
  import { api } from '$lib/api/client';
  import { must, problemOf } from '$lib/api/problem';
  import BookingTable from '$lib/bookings/BookingTable.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const AT_ONCE = 50;

  // What is shown is in the address, so that it can be reloaded and sent on.
  const when = $derived(page.url.searchParams.get('when') === 'past' ? 'past' : 'upcoming');
  const search = $derived(page.url.searchParams.get('search') ?? '');
  const skip = $derived(Math.max(0, Number(page.url.searchParams.get('skip') ?? '0') || 0));

  const bookings = createQuery(() => ({
    queryKey: ['bookings', when, search, skip],
    queryFn: () => must(api.GET('/api/bookings', { params: { query: { past: when === 'past', search: search || undefined, skip, take: AT_ONCE } } })),
    refetchInterval: 30_000,
    placeholderData: keepPreviousData,
  }));

  function show(next: { when?: string; search?: string; skip?: number }): void {
    const query = new URLSearchParams();
    const chosen = { when, search, skip: 0, ...next };
    if (chosen.when === 'past') query.set('when', 'past');
    if (chosen.search) query.set('search', chosen.search);
    if (chosen.skip > 0) query.set('skip', String(chosen.skip));
    void goto(query.size > 0 ? `?${query}` : '?', { replaceState: true, keepFocus: true, noScroll: true });
  }
</script>

<svelte:head><title>Bookings – Loose Lantern</title></svelte:head>

<header class="mb-4 flex flex-wrap items-center gap-x-5 gap-y-3">
  <h1 class="text-[26px]">Bookings</h1>
  <Segments
    label="Which bookings"
    options={[
      { value: 'upcoming', text: 'To come' },
      { value: 'past', text: 'Past' },
    ]}
    value={when}
    onchoose={(next) => show({ when: next })}
  />
  <div class="w-60"><Input
    type="search"
    aria-label="Search by guest or page"
    placeholder="Guest or page"
    class="py-1.5"
    bind:value={() => search, (typed) => show({ search: typed ?? '' })}
  /></div>
</header>

{#if bookings.isError}
  <ProblemNote problem={problemOf(bookings.error)} />
{:else if bookings.isPending}
  <Skeleton size="2xl" />
{:else if bookings.data.total === 0}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">{search ? `Nothing matches “${search}”` : when === 'past' ? 'Nothing has taken place yet' : 'Nothing is booked'}</h2>
    <p class="mt-1 text-muted">
      {search ? 'Search by a part of the guest’s name, their email, or the page’s title.' : 'Bookings stand here as soon as a guest reserves a time on one of your pages.'}
    </p>
    {#if !search && when === 'upcoming'}<ActionButton href="/work/pages" class="mt-4">Go to your pages</ActionButton>{/if}
  </div>
{:else}
  <BookingTable rows={bookings.data.rows} zone={data.me.zone} now={bookings.data.now} />
  {#if bookings.data.total > AT_ONCE}
    <nav aria-label="More bookings" class="mt-3 flex items-center gap-3 text-muted">
      <ActionButton disabled={skip === 0} onclick={() => show({ skip: Math.max(0, skip - AT_ONCE) })}>Before</ActionButton>
      {skip + 1} to {Math.min(skip + AT_ONCE, bookings.data.total)} of {bookings.data.total}
      <ActionButton disabled={skip + AT_ONCE >= bookings.data.total} onclick={() => show({ skip: skip + AT_ONCE })}>After</ActionButton>
    </nav>
  {/if}
{/if}
