<script lang="ts">
  import { api } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import CancelModal from '$lib/bookings/CancelModal.svelte';
  import GuestCell from '$lib/bookings/GuestCell.svelte';
  import { endInWords } from '$lib/bookings/reply';
  import WordsToGuests from '$lib/bookings/WordsToGuests.svelte';
  import { askAnew } from '$lib/live/anew';
  import MovePanel from '$lib/moving/MovePanel.svelte';
  import { rangeOf } from '$lib/moving/range';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, dayMonth, fullDate, lengthOf, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const session = $derived(data.session);
  const zone = $derived(data.me.zone);
  const path = $derived({ id: session.id });
  const minutes = $derived((Date.parse(session.end) - Date.parse(session.start)) / 60_000);
  const mayMove = $derived(session.mayChange && Date.parse(session.start) > Date.parse(session.now));
  const brings = $derived(session.guests.some((guest) => guest.companions.length > 0));
  let doing = $state<'nothing' | 'moving' | 'cancelling' | 'writing'>('nothing');
  let one = $state.raw<{ id: string; name: string } | undefined>(undefined);
  let sent = $state<number | undefined>(undefined);

  const load = async () =>
    (
      await must(
        api.GET('/api/sessions/{id}/openings', {
          params: { path, query: rangeOf(session.firstDate, session.lastDate) },
        }),
      )
    ).openings;

  function done(): void {
    doing = 'nothing';
    one = undefined;
    void askAnew();
  }
</script>

<svelte:head><title>{session.page} – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/bookings">Bookings</a></p>
<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <h1 class="text-page">{session.page}</h1>
  {#if session.mayChange}
    <div class="flex flex-wrap gap-3">
      <ActionButton onclick={() => (doing = 'writing')}>Write to all</ActionButton>
      {#if mayMove}<ActionButton disabled={doing === 'moving'} onclick={() => (doing = 'moving')}>Move all</ActionButton
        >{/if}
      <ActionButton onclick={() => (doing = 'cancelling')}>Cancel all</ActionButton>
    </div>
  {/if}
</header>

<div class="space-y-5">
  <section class="rounded-2xl border border-line bg-card p-5" aria-labelledby="session-when">
    <div class="flex flex-wrap items-start justify-between gap-x-8 gap-y-2">
      <div>
        <h2 id="session-when" class="text-xl">
          {fullDate(dateIn(session.start, zone))}, {timeOf(session.start, zone)} – {timeOf(session.end, zone)}
        </h2>
        <p class="text-muted">
          {cityOf(zone)} time, {lengthOf(minutes)}, with {session.hosts.join(', ')}{session.place
            ? `, ${session.place}`
            : ''}
        </p>
        <p class="mt-1">
          <a
            class="underline decoration-line-strong underline-offset-4"
            href="/work/{session.isOfLink ? 'links' : 'pages'}/{session.pageId}"
            >{session.isOfLink ? 'The link it was booked by' : 'The page it was booked on'}</a
          >
        </p>
      </div>
      <p class="text-right">
        <span class="font-heading block text-2xl font-semibold"
          >{session.coming}{session.places > 1 ? ` of ${session.places}` : ''}</span
        >
        <span class="text-muted">{session.places > 1 ? 'places taken' : 'people'}</span>
      </p>
    </div>
    {#if sent !== undefined}<p class="mt-2 font-semibold" role="status">
        {sent === 1 ? 'One mail goes out.' : `${sent} mails go out.`}
      </p>{/if}
  </section>

  {#if doing === 'moving' && mayMove}
    <MovePanel
      {zone}
      otherZone={session.zone}
      now={session.now}
      firstDate={session.firstDate}
      told="Everyone who comes and {session.hosts.join(', ')} will be told."
      {load}
      move={(start) => must(api.POST('/api/sessions/{id}/move', { params: { path }, body: { start } }))}
      onmoved={done}
      onclose={() => (doing = 'nothing')}
    />
  {/if}

  {#if session.guests.length > 0}
    <section class="rounded-2xl border border-line bg-card" aria-labelledby="who-comes">
      <header class="flex flex-wrap items-baseline justify-between gap-3 px-5 pt-4 pb-1">
        <h2 id="who-comes" class="text-lg">Who comes</h2>
        <a
          class="underline decoration-line-strong underline-offset-4"
          href="/api/sessions/{session.id}/guests.csv"
          download>Save as CSV</a
        >
      </header>
      <div class="overflow-x-auto">
        <table class="w-full border-separate border-spacing-0 text-left">
          <thead class="text-fine text-muted">
            <tr>
              <th scope="col" class="px-5 pt-2 pb-2 font-normal">Guest</th>
              <th scope="col" class="px-3 pt-2 pb-2 font-normal">People</th>
              {#if brings}<th scope="col" class="px-3 pt-2 pb-2 font-normal">Brings</th>{/if}
              {#each session.questions as question, at (at)}<th scope="col" class="px-3 pt-2 pb-2 font-normal"
                  >{question}</th
                >{/each}
              <th scope="col" class="px-3 pt-2 pb-2 font-normal">Booked</th>
              <td></td>
            </tr>
          </thead>
          <tbody>
            {#each session.guests as { row, companions, answers } (row.id)}
              <tr>
                <th scope="row" class="border-t border-line px-5 py-2.5 align-top font-normal"
                  ><GuestCell row={{ ...row, party: 1 }} {zone} /></th
                >
                <td class="border-t border-line px-3 py-2.5 align-top">{row.party}</td>
                {#if brings}<td class="border-t border-line px-3 py-2.5 align-top wrap-anywhere"
                    >{companions.map((along) => (along.name === '' ? along.email : along.name)).join(', ')}</td
                  >{/if}
                {#each answers as answer, at (at)}<td
                    class="border-t border-line px-3 py-2.5 align-top wrap-anywhere whitespace-pre-line">{answer}</td
                  >{/each}
                <td class="border-t border-line px-3 py-2.5 align-top text-fine text-muted"
                  >{dayMonth(dateIn(row.bookedAt, zone))}, {timeOf(row.bookedAt, zone)}</td
                >
                <td class="border-t border-line px-5 py-2 text-right align-top">
                  {#if row.mayChange}<TextButton
                      class="min-h-8"
                      aria-label="Cancel the booking of {row.guestName}"
                      onclick={() => (one = { id: row.id, name: row.guestName })}>Cancel</TextButton
                    >{/if}
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    </section>
  {:else}
    <p class="rounded-2xl border border-line bg-card p-5">Nobody comes to it any more.</p>
  {/if}

  {#if session.cancelled.length > 0}
    <section class="rounded-2xl border border-line bg-card p-5" aria-labelledby="who-cancelled">
      <h2 id="who-cancelled" class="mb-1 text-lg">Cancelled</h2>
      <ul>
        {#each session.cancelled as row (row.id)}
          <li class="border-t border-line py-2 first:border-t-0">
            <a class="underline decoration-line-strong underline-offset-4" href="/work/bookings/{row.id}"
              >{row.guestName}</a
            >
            <span class="text-sm text-muted">{endInWords(row)}</span>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
</div>

{#if doing === 'cancelling'}
  <CancelModal
    booking="{session.page} for all {session.coming} who come"
    reader="everyone who comes"
    cancel={(word) => must(api.POST('/api/sessions/{id}/cancel', { params: { path }, body: { word } }))}
    oncancelled={done}
    onclose={() => (doing = 'nothing')}
  />
{:else if doing === 'writing'}
  <WordsToGuests
    title="Write to everyone who comes"
    about="Each gets a mail of their own, with the time and their private link. Nobody sees the others."
    send={(word, key) =>
      must(
        api.POST('/api/sessions/{id}/words', {
          params: { path, header: { 'Idempotency-Key': key } },
          body: { word },
        }),
      )}
    onsent={(mails) => {
      sent = mails;
      done();
    }}
    onclose={() => (doing = 'nothing')}
  />
{/if}
{#if one}
  {@const { id, name } = one}
  <CancelModal
    booking="the booking of {name}"
    reader={name}
    cancel={(word) => must(api.POST('/api/bookings/{id}/cancel', { params: { path: { id } }, body: { word } }))}
    oncancelled={done}
    onclose={() => (one = undefined)}
  />
{/if}
