<script lang="ts">
  import { afterNavigate, goto } from '$app/navigation';
  import { untrack } from 'svelte';
  import { Input } from 'flowbite-svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { appointmentsOf, type Appointment } from '$lib/bookings/appointments';
  import BookingChoice from '$lib/bookings/BookingChoice.svelte';
  import BookingTable from '$lib/bookings/BookingTable.svelte';
  import CancelModal from '$lib/bookings/CancelModal.svelte';
  import {
    asked,
    filterIn,
    goesByDay,
    isChosen,
    isSameFilter,
    putFilter,
    toCome,
    whenChoices,
    whenIs,
    type BookingFilter,
  } from '$lib/bookings/filter';
  import { askAnew } from '$lib/live/anew';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import { LaterRuns } from '$lib/ui/LaterRuns.svelte';
  import MoreBelow from '$lib/ui/MoreBelow.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import SavedViews from '$lib/ui/SavedViews.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const IN_ONE_RUN = 100;
  const none: Schemas['BookingList'] = { now: '', total: 0, rows: [], before: null, after: null };

  /** What was chosen last, until its answer is shown: the next choice counts beside it, however fast it follows. */
  let chosen = $state.raw<BookingFilter | undefined>(undefined);
  const filter = $derived(chosen ?? data.filter);
  const exported = $derived.by(() => {
    const query = new URLSearchParams(asked(data.filter));
    return query.size > 0 ? `?${query}` : '';
  });
  let filtering = $state(false);
  let cancelling = $state.raw<Appointment | undefined>(undefined);

  const list = $derived(data.bookings ?? none);
  const choice = $derived(JSON.stringify(asked(data.filter)));
  // svelte-ignore state_referenced_locally
  const runs = new LaterRuns<Schemas['BookingRow']>(
    choice,
    () => list,
    (after) =>
      must(api.GET('/api/bookings', { params: { query: { ...asked(data.filter), after, take: IN_ONE_RUN } } })),
  );

  $effect(() => {
    const now = choice;
    // Whenever the answer comes anew.
    if (list) untrack(() => void runs.renew(now));
  });

  afterNavigate(({ type, to }) => {
    if (chosen && (type !== 'goto' || (to && isSameFilter(filterIn(to.url.searchParams), chosen)))) chosen = undefined;
  });

  function show(next: BookingFilter): void {
    const query = new URLSearchParams();
    chosen = next;
    putFilter(query, next);
    void goto(query.size > 0 ? `?${query}` : '?', { replaceState: true, keepFocus: true, noScroll: true });
  }

  /** What the guest is called whose bookings alone are shown; empty where they are everybody's. */
  function nameOf(guest: string | null | undefined): string {
    if (!guest) return '';
    const row = list.rows.find((one) => one.guestId === guest || one.bookerId === guest);
    return row ? (row.guestId === guest ? row.guestName : row.bookerName) : 'one guest';
  }

  const emptyTitles: Record<Schemas['WhichBookings'], string> = {
    toCome: 'Nothing is booked',
    past: 'Nothing has taken place yet',
    all: 'Nothing is booked',
    cancelled: 'Nothing was cancelled',
  };
</script>

<svelte:head><title>Bookings – Loose Lantern</title></svelte:head>

<header class="mb-2 flex flex-wrap items-center gap-x-5 gap-y-3">
  <h1 class="text-page">Bookings</h1>
  <Segments
    label="Which bookings"
    options={whenChoices}
    value={filter.when ?? 'toCome'}
    onchoose={(when) => show(whenIs(filter, when))}
  />
  <div class="w-60">
    <Input
      type="search"
      aria-label="Search by guest or page"
      placeholder="Guest or page"
      class="py-1.5"
      bind:value={() => filter.search ?? '', (typed) => show({ ...filter, search: typed ?? '' })}
    />
  </div>
  <!-- On a phone bookings come first. -->
  <TextButton class="min-h-11 md:hidden" aria-expanded={filtering} onclick={() => (filtering = !filtering)}
    >Filter and sort</TextButton
  >
  <ActionButton class="ml-auto" href="/work/cover">Find cover</ActionButton>
  {#if data.me.isCoordinator}<ActionButton href="/work/bookings/flagged">Flagged</ActionButton>{/if}
</header>

{#if data.views.length > 0 || isChosen(filter)}
  <div class="mb-3">
    <SavedViews
      views={data.views}
      {filter}
      whole="Everything"
      isWhole={!isChosen(filter)}
      mayChange={data.me.isCoordinator}
      isSame={isSameFilter}
      save={(name) => must(api.PUT('/api/bookings/views', { body: { name, filter } }))}
      remove={(id) => must(api.DELETE('/api/bookings/views/{id}', { params: { path: { id } } }))}
      onchoose={(view) => show(view ? { ...toCome, ...view } : { ...toCome, when: filter.when ?? 'toCome' })}
    />
  </div>
{/if}
<div class="mb-4 {filtering || isChosen(filter) ? '' : 'max-md:hidden'}">
  <BookingChoice
    {filter}
    pages={data.pages}
    kinds={data.me.kinds}
    hosts={data.hosts}
    guest={nameOf(filter.guest)}
    people={data.people}
    mends={[mendOf(data.problem, 'from'), mendOf(data.problem, 'to')]}
    onchange={show}
  />
</div>

{#if data.problem}
  {#if !mendOf(data.problem, 'from') && !mendOf(data.problem, 'to')}<ProblemNote problem={data.problem} />{/if}
{:else if list.total === 0}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">
      {isChosen(data.filter)
        ? data.filter.search
          ? `Nothing matches “${data.filter.search}”`
          : 'No booking is like that'
        : emptyTitles[data.filter.when ?? 'toCome']}
    </h2>
    <p class="mt-1 text-muted">
      {isChosen(data.filter)
        ? 'Remove a condition, or search by a part of the guest’s name, their email, or the page’s title.'
        : 'Bookings appear here as soon as a guest reserves a time on one of your pages.'}
    </p>
    {#if isSameFilter(data.filter, toCome)}<ActionButton href="/work/pages" class="mt-4">Go to your pages</ActionButton
      >{/if}
  </div>
{:else}
  <p role="status" class="sr-only">{counted(list.total, 'appointment', 'appointments')}</p>
  <BookingTable
    rows={runs.rows}
    zone={data.me.zone}
    now={list.now}
    byDay={goesByDay(data.filter)}
    waitsFirst={(data.filter.when ?? 'toCome') === 'toCome' && (data.filter.order ?? 'usual') === 'usual'}
    oncancel={(appointment) => (cancelling = appointment)}
  />
  <MoreBelow
    shown={appointmentsOf(runs.rows).length}
    total={list.total}
    isWhole={runs.isWhole}
    busy={runs.busy}
    problem={runs.problem}
    onmore={() => void runs.more()}
  />
  <p class="mt-1 text-fine text-muted">
    {#if data.me.isCoordinator}
      Export these bookings: <a class="underline underline-offset-4" download href="/api/bookings/export.csv{exported}"
        >CSV</a
      >{#if data.filter.when !== 'cancelled'}, <a
          class="underline underline-offset-4"
          download
          href="/api/bookings/export.ics{exported}">iCalendar</a
        >{/if}.
    {/if}
    <a class="underline underline-offset-4" href="/work/bookings/print{exported}">Print a day or week</a>
  </p>
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
