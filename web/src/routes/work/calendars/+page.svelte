<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { Skeleton } from 'flowbite-svelte';
  import { Temporal } from 'temporal-polyfill';
  import { api } from '$lib/api/client';
  import { must, problemOf } from '$lib/api/problem';
  import Board from '$lib/board/Board.svelte';
  import CalendarList from '$lib/calendars/CalendarList.svelte';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, dayMonth } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const DAYS = 14;
  const today = $derived(dateIn(data.me.now, data.me.zone));
  const from = $derived(page.url.searchParams.get('from') ?? today);
  const hidden = $derived(new Set(page.url.searchParams.getAll('hide')));

  const board = createQuery(() => ({
    queryKey: ['board', from],
    queryFn: () => must(api.GET('/api/board', { params: { query: { from, days: DAYS } } })),
    refetchInterval: 30_000,
    placeholderData: keepPreviousData,
  }));
  const calendars = createQuery(() => ({ queryKey: ['calendars'], queryFn: () => must(api.GET('/api/calendars')) }));
  const shown = $derived(board.data?.hosts.filter((host) => !hidden.has(host.id)) ?? []);
  const last = $derived(Temporal.PlainDate.from(from).add({ days: DAYS - 1 }).toString());

  function show(next: { from?: string; hide?: Iterable<string> }): void {
    const query = new URLSearchParams();
    const start = next.from ?? from;
    if (start !== today) query.set('from', start);
    for (const id of next.hide ?? hidden) query.append('hide', id);
    void goto(query.size > 0 ? `?${query}` : '?', { replaceState: true, keepFocus: true, noScroll: true });
  }

  function move(days: number): void {
    show({ from: Temporal.PlainDate.from(from).add({ days }).toString() });
  }

  function toggle(host: string): void {
    const next = new Set(hidden);
    if (!next.delete(host)) next.add(host);
    show({ hide: next });
  }
</script>

<svelte:head><title>Calendars – Loose Lantern</title></svelte:head>

<header class="mb-3 flex flex-wrap items-center justify-between gap-3">
  <div class="flex flex-wrap items-baseline gap-x-3">
    <h1 class="text-[26px]">Calendars</h1>
    <p class="text-muted">{dayMonth(from)} to {dayMonth(last)}, {cityOf(board.data?.zone ?? data.me.zone)} time</p>
  </div>
  <div class="flex gap-2">
    <ActionButton onclick={() => move(-DAYS)}>Two weeks back</ActionButton>
    <ActionButton disabled={from === today} onclick={() => show({ from: today })}>Today</ActionButton>
    <ActionButton onclick={() => move(DAYS)}>Two weeks on</ActionButton>
  </div>
</header>

{#if board.isError}
  <ProblemNote problem={problemOf(board.error)} />
{:else if board.isPending}
  <Skeleton size="2xl" />
{:else}
  <div role="group" aria-label="Whose lanes are shown" class="mb-2.5 flex flex-wrap gap-2">
    {#each board.data.hosts as host (host.id)}
      {@const isShown = !hidden.has(host.id)}
      <button
        type="button"
        aria-pressed={isShown}
        class="min-h-8 rounded-full border px-3 text-sm {isShown ? 'border-chosen bg-chosen text-on-chosen' : 'border-dashed border-edge text-muted hover:bg-lane'}"
        onclick={() => toggle(host.id)}>{host.name}</button
      >
    {/each}
  </div>
  {#if shown.length === 0}
    <p class="rounded-2xl border border-line bg-card p-6 text-muted">Choose above whose time to show.</p>
  {:else}
    <Board board={board.data} hosts={shown} {today} />
  {/if}
  <CalendarList hosts={board.data.hosts} calendars={calendars.data ?? []} zone={data.me.zone} mayEdit={data.me.isCoordinator} />
{/if}
