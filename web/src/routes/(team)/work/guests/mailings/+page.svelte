<script lang="ts">
  import { goto } from '$app/navigation';
  import { standingInWords } from '$lib/mailings/mailing';
  import { dateIn, dayMonth, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ListNav from '$lib/ui/ListNav.svelte';
  import { putPlace, type ListPlace } from '$lib/ui/listPlace';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const at = (instant: string): string =>
    `${dayMonth(dateIn(instant, data.me.zone))}, ${timeOf(instant, data.me.zone)}`;

  function show(place: ListPlace): void {
    const query = new URLSearchParams();
    putPlace(query, place);
    void goto(query.size > 0 ? `?${query}` : '?', { replaceState: true, keepFocus: true, noScroll: true });
  }
</script>

<svelte:head><title>Mailings – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/guests">Guests</a></p>
<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <h1 class="text-page">Mailings</h1>
  <ActionButton kind="main" href="/work/guests/mailings/new">New mailing</ActionButton>
</header>

{#if data.mailings.total === 0}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">No mailing yet</h2>
    <p class="mt-1 text-muted">
      A mailing offers the same times to several guests: each gets a letter and a link of their own, and you see here
      who has booked.
    </p>
  </div>
{:else}
  <ul class="overflow-hidden rounded-2xl border border-line bg-card" aria-label="Mailings">
    {#each data.mailings.rows as row (row.id)}
      <li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-t border-line px-4 py-2.5 first:border-t-0">
        <a
          class="inline-flex min-h-6 items-center font-semibold underline decoration-line-strong underline-offset-4"
          href="/work/guests/mailings/{row.id}">{row.title}</a
        >
        <span>{standingInWords(row)}</span>
        <span class="ml-auto text-fine text-muted"
          >sent {at(row.sentAt)}{row.madeBy ? ` by ${row.madeBy}` : ''}{row.askedAgainAt
            ? `; asked again ${at(row.askedAgainAt)}`
            : ''}</span
        >
      </li>
    {/each}
  </ul>
  <ListNav label="More mailings" list={data.mailings} shown={data.mailings.rows.length} onplace={show} />
{/if}
