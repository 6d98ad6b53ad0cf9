<script lang="ts">
  import { goto } from '$app/navigation';
  import { Temporal } from 'temporal-polyfill';
  import Board from '$lib/board/Board.svelte';
  import CalendarList from '$lib/calendars/CalendarList.svelte';
  import { cityOf } from '$lib/time/clock';
  import { dayMonth } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const shown = $derived(data.board.hosts.filter((host) => !data.hidden.has(host.id)));
  const last = $derived(Temporal.PlainDate.from(data.from).add({ days: data.days - 1 }).toString());

  function show(next: { from?: string; hide?: Iterable<string> }): void {
    const query = new URLSearchParams();
    const start = next.from ?? data.from;
    if (start !== data.today) query.set('from', start);
    for (const id of next.hide ?? data.hidden) query.append('hide', id);
    void goto(query.size > 0 ? `?${query}` : '?', { replaceState: true, keepFocus: true, noScroll: true });
  }

  function move(days: number): void {
    show({ from: Temporal.PlainDate.from(data.from).add({ days }).toString() });
  }

  function toggle(host: string): void {
    const next = new Set(data.hidden);
    if (!next.delete(host)) next.add(host);
    show({ hide: next });
  }
</script>

<svelte:head><title>Calendars – Loose Lantern</title></svelte:head>

<header class="mb-3 flex flex-wrap items-center justify-between gap-3">
  <div class="flex flex-wrap items-baseline gap-x-3">
    <h1 class="text-[26px]">Calendars</h1>
    <p class="text-muted">{dayMonth(data.from)} to {dayMonth(last)}, {cityOf(data.board.zone)} time</p>
  </div>
  <div class="flex gap-2">
    <ActionButton onclick={() => move(-data.days)}>Two weeks back</ActionButton>
    <ActionButton disabled={data.from === data.today} onclick={() => show({ from: data.today })}>Today</ActionButton>
    <ActionButton onclick={() => move(data.days)}>Two weeks on</ActionButton>
  </div>
</header>

<div role="group" aria-label="Whose lanes are shown" class="mb-2.5 flex flex-wrap gap-2">
  {#each data.board.hosts as host (host.id)}
    {@const isShown = !data.hidden.has(host.id)}
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
  <Board board={data.board} hosts={shown} today={data.today} />
{/if}
<CalendarList hosts={data.board.hosts} calendars={data.calendars} zone={data.me.zone} mayEdit={data.me.isCoordinator} />
