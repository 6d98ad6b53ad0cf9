<script lang="ts">
  import { goto } from '$app/navigation';
  import { Skeleton } from 'flowbite-svelte';
  import { onMount, tick } from 'svelte';
  import BookingForm from '$lib/guest/BookingForm.svelte';
  import DayRow from '$lib/guest/DayRow.svelte';
  import { parts, type ShownOpening } from '$lib/guest/days';
  import { GuestPageState } from '$lib/guest/GuestPageState.svelte';
  import PageHead from '$lib/guest/PageHead.svelte';
  import { placeWords } from '$lib/guest/place';
  import WeekStrip from '$lib/guest/WeekStrip.svelte';
  import ZoneChoice from '$lib/guest/ZoneChoice.svelte';
  import { lineUpInWords } from '$lib/pages/form';
  import { lengthOf } from '$lib/time/format';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  // svelte-ignore state_referenced_locally -- another page is another route visit, which makes this component anew
  const guest = new GuestPageState(data.path, data.page);
  const { page } = guest;
  const place = placeWords(page.placeKind, page.place);
  const circumstance = `${place === '' ? '' : `${place}, `}with ${lineUpInWords(page.seats)}.`;
  const week = $derived(guest.weeks.find((candidate) => candidate.monday === guest.week));
  let reading = $state(false);
  const nothingAtAll = $derived(guest.openings?.length === 0);

  onMount(() => {
    void guest.load();
    return guest.watch();
  });

  /** An empty day names the next opening, but only the first of several empty days in a row. */
  function nextAfter(date: string, previous: string | undefined): ShownOpening | null {
    if (previous !== undefined && !guest.days.has(previous)) return null;
    return guest.after(date) ?? null;
  }

  async function choose(opening: ShownOpening): Promise<void> {
    guest.choose(opening);
    await tick();
    document.getElementById('guest-name')?.focus({ preventScroll: true });
    document.querySelector('form')?.scrollIntoView({ block: 'nearest' });
  }

  async function reserve(): Promise<void> {
    const path = await guest.reserve();
    if (path) await goto(path, { replaceState: true });
    else await tick().then(() => document.querySelector<HTMLElement>('form [aria-invalid="true"]')?.focus());
  }
</script>

<svelte:head><title>{page.title} – {page.workspace}</title></svelte:head>

<PageHead workspace={page.workspace} desk={page.desk} title={page.title} hosts={page.seats.flat()} names={lineUpInWords(page.seats)}>
  {#if page.durations.length > 1}
    <Segments
      onNight
      label="How long"
      options={page.durations.map((minutes) => ({ value: minutes, text: lengthOf(minutes) }))}
      value={guest.duration}
      onchoose={(minutes) => void guest.chooseDuration(minutes)}
    />
  {:else}
    <span>{lengthOf(guest.duration)}</span>
  {/if}
  {#if place}<span class="text-on-night">{place}</span>{/if}
  {#if page.description}
    <button type="button" aria-expanded={reading} aria-controls="about" class="min-h-11 text-[#fbd588] underline underline-offset-4 md:min-h-9" onclick={() => (reading = !reading)}>
      {reading ? 'Less about it' : 'What to know'}
    </button>
  {/if}
</PageHead>

<main class="mx-auto max-w-[1216px] px-[18px] pb-16 md:px-6">
  <div id="about">
    {#if reading}<p class="max-w-3xl pt-4 whitespace-pre-line">{page.description}</p>{/if}
  </div>

  <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 pt-4">
    <WeekStrip weeks={guest.weeks} countOf={(date) => guest.days.get(date)?.length ?? 0} chosen={guest.week} onchoose={(monday) => (guest.week = monday)} />
    <ZoneChoice pageZone={page.zone} own={guest.own} zone={guest.zone} now={guest.now} onchoose={(zone) => guest.chooseZone(zone)} />
  </div>

  {#if guest.loadProblem}
    <div class="mt-4"><ProblemNote problem={guest.loadProblem} /></div>
  {/if}

  {#if guest.openings === undefined}
    <div class="mt-6" aria-label="Loading open times"><Skeleton size="2xl" /></div>
  {:else if nothingAtAll}
    <div class="mt-6 rounded-2xl border border-line bg-card p-6">
      <h2 class="text-xl">Nothing is open just now</h2>
      <p class="mt-1 text-muted">Every time that could be offered is taken or closed. Times may open again; this page shows them as soon as they do.</p>
    </div>
  {:else}
    <div class="mt-2 hidden grid-cols-[126px_1fr] gap-x-3 md:grid" aria-hidden="true">
      <span></span>
      <div class="grid grid-cols-3 gap-x-3 pb-1.5 text-[13px] text-muted">
        {#each parts as part (part)}<span>{part}</span>{/each}
      </div>
    </div>
    {#each week?.dates ?? [] as date, i (date)}
      {@const openings = guest.days.get(date) ?? []}
      <DayRow
        {date}
        {openings}
        zone={guest.zone}
        today={guest.today}
        hourNow={guest.hourNow}
        chosen={guest.chosen?.start}
        isShared={page.places > 1}
        next={openings.length === 0 ? nextAfter(date, week?.dates[i - 1]) : null}
        onchoose={(opening) => void choose(opening)}
      >
        {#snippet form()}
          {#if guest.chosen?.date === date}
            <BookingForm
              opening={guest.chosen}
              zone={guest.zone}
              pageZone={page.zone}
              {circumstance}
              questions={page.questions}
              bind:typed={guest.typed}
              problem={guest.problem}
              nearest={guest.nearestShown}
              busy={guest.reserving}
              asks={page.approvalHours !== null}
              onreserve={() => void reserve()}
              onchoose={(opening) => void choose(opening)}
              onclose={() => guest.leave()}
            />
          {/if}
        {/snippet}
      </DayRow>
    {/each}
    <div class="border-t border-line"></div>
  {/if}
</main>
