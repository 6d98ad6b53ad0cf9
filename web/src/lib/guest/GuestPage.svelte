<script lang="ts">
  import { goto } from '$app/navigation';
  import { Skeleton } from 'flowbite-svelte';
  import { onMount, tick, type Snippet } from 'svelte';
  import type { Schemas } from '$lib/api/client';
  import { lengthOf } from '$lib/time/format';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import { say } from '$lib/words/say.svelte';
  import BookingForm from './BookingForm.svelte';
  import DayRow from './DayRow.svelte';
  import { parts, type ShownOpening } from './days';
  import { leaveFor, tellFrame, tellHeight } from './frame';
  import { GuestPageState } from './GuestPageState.svelte';
  import { hostsInWords } from './inWords';
  import OwnCalendar from './OwnCalendar.svelte';
  import PageHead from './PageHead.svelte';
  import { placeWords } from './place';
  import type { GuestSource } from './source';
  import Tried from './Tried.svelte';
  import WeekStrip from './WeekStrip.svelte';
  import ZoneChoice from './ZoneChoice.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    source: GuestSource;
    /** What stands beneath the openings. */
    beneath?: Snippet<[GuestPageState]>;
  }

  let { source, beneath }: Props = $props();

  const MOST_OPEN = 240;

  // Another page is another route visit, which makes this component anew.
  // svelte-ignore state_referenced_locally
  const guest = new GuestPageState(source);
  const { page } = guest;
  const place = placeWords(page.placeKind, page.place, page.hostsRing);
  const names = hostsInWords(page.seats);
  const circumstance = [place, names && say('with-names', { names })].filter((words) => words !== '').join(', ');
  // Of the durations the shortest comes first; which one is preset is another matter.
  const durations = [...page.durations].sort((one, other) => one - other);
  const parties = Array.from({ length: page.mostParty }, (_, at) => at + 1);
  const week = $derived(guest.weeks.find((candidate) => candidate.monday === guest.week));
  let reading = $state(false);
  let wentMeanwhile = $state(false);
  let tried = $state.raw<Schemas['TriedBooking'] | undefined>(undefined);
  const nothingAtAll = $derived(guest.openings?.length === 0);
  const about = page.description !== '' || page.directions !== '';
  // What is short stands open; of what is long the beginning does, so that the times stay in sight.
  const isLong = (page.description + page.directions).replace(/<[^>]*>/g, '').length > MOST_OPEN;

  onMount(() => {
    void guest.load().then(chooseAsked);
    const unwatch = guest.watch();
    tellFrame('opened');
    const untell = tellHeight();
    return () => {
      unwatch();
      untell();
    };
  });

  $effect(() => {
    JSON.stringify(guest.typed);
    guest.keepTyped();
  });

  /** A time that was pressed in a mail is chosen here; only another press reserves it. */
  async function chooseAsked(): Promise<void> {
    const at = guest.known?.at;
    if (at === undefined) return;
    const opening = guest.shown.find((one) => one.start === at);
    if (opening) await choose(opening);
    else wentMeanwhile = true;
  }

  /** An empty day names the next opening, but only the first of several empty days in a row. */
  function nextAfter(date: string, previous: string | undefined): ShownOpening | null {
    if (previous !== undefined && !guest.days.has(previous)) return null;
    return guest.after(date) ?? null;
  }

  async function choose(opening: ShownOpening): Promise<void> {
    tried = undefined;
    guest.choose(opening);
    await tick();
    document.getElementById('guest-name')?.focus({ preventScroll: true });
    document.querySelector('form')?.scrollIntoView({ block: 'nearest' });
  }

  async function reserve(oneMore: boolean): Promise<void> {
    const reserved = await guest.reserve(oneMore);
    if (!reserved) {
      await tick();
      (
        document.querySelector<HTMLElement>('form [aria-invalid="true"]') ??
        (guest.code === '' ? document.getElementById('guest-code') : null)
      )?.focus();
    } else if (reserved.kind === 'tried') {
      guest.leave();
      tried = reserved.tried;
      scrollTo({ top: 0 });
    } else {
      tellFrame('booked', { start: reserved.start, end: reserved.end });
      if (reserved.goTo) leaveFor(reserved.goTo);
      else await goto(reserved.path, { replaceState: true });
    }
  }
</script>

<PageHead
  workspace={page.workspace}
  desk={page.desk}
  title={page.title}
  hosts={page.hosts}
  {names}
  accent={page.accent}
  logo={page.logo}
  picture={page.banner}
  deskPath={source.isPreview ? undefined : page.deskPath}
>
  {#if durations.length > 1}
    <Segments
      onNight
      label={say('durations')}
      options={durations.map((minutes) => ({ value: minutes, text: lengthOf(minutes) }))}
      value={guest.duration}
      onchoose={(minutes) => void guest.chooseDuration(minutes)}
    />
  {:else}
    <span>{lengthOf(guest.duration)}</span>
  {/if}
  {#if place}<span class="text-on-night">{place}</span>{/if}
  {#if page.mostParty > 1}
    <span class="flex items-center gap-2 text-on-night">
      <label for="party">{say('party.how-many')}</label>
      <select
        id="party"
        class="min-h-9 rounded-lg border border-on-night bg-transparent px-2 text-on-night [&>option]:text-ink max-md:min-h-11"
        bind:value={() => guest.party, (party) => void guest.chooseParty(party)}
      >
        {#each parties as party (party)}<option value={party}>{party}</option>{/each}
      </select>
    </span>
  {/if}
</PageHead>

<svelte:element this={source.isPreview ? 'div' : 'main'} class="mx-auto max-w-[1216px] px-[18px] pb-16 md:px-6">
  {#if about}
    <div class="max-w-3xl pt-4">
      <div id="about">
        <!-- eslint-disable svelte/no-at-html-tags -- made safe by the server -->
        <div class="prose-guest {isLong && !reading ? 'line-clamp-3' : ''}">{@html page.description}</div>
        {#if page.directions && (!isLong || reading)}
          <h2 class="pt-3 text-lg">{say('about.how-to-get-there')}</h2>
          <div class="prose-guest pt-1">{@html page.directions}</div>
        {/if}
        <!-- eslint-enable svelte/no-at-html-tags -->
      </div>
      {#if isLong}
        <TextButton
          aria-expanded={reading}
          aria-controls="about"
          class="min-h-11 text-muted"
          onclick={() => (reading = !reading)}>{reading ? say('about.less') : say('about.more')}</TextButton
        >
      {/if}
    </div>
  {/if}
  {#if tried}<Tried {tried} zone={page.zone} onclose={() => (tried = undefined)} />{/if}

  <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 pt-4">
    <WeekStrip
      weeks={guest.weeks}
      countOf={(date) => guest.days.get(date)?.length ?? 0}
      chosen={guest.week}
      onchoose={(monday) => guest.turnTo(monday)}
    />
    <ZoneChoice {guest} />
  </div>

  {#if wentMeanwhile}<p
      class="mt-4 rounded-lg border-l-4 border-brick bg-brick-tint px-4 py-3 text-brick-text"
      role="status"
    >
      {say('opening-gone.title')}
      {say('opening-gone.choose')}
    </p>{/if}
  {#if guest.loadProblem}
    <div class="mt-4"><ProblemNote problem={guest.loadProblem} /></div>
  {/if}

  {#if guest.openings === undefined}
    <div class="mt-6" aria-label={say('openings.loading')}><Skeleton size="2xl" /></div>
  {:else if nothingAtAll}
    <div class="mt-6 rounded-2xl border border-line bg-card p-6">
      <h2 class="text-xl">{say('openings.none.title')}</h2>
      <p class="mt-1 text-muted">
        {guest.party > 1 ? say('party.none', { n: guest.party }) : say('openings.none.detail')}
      </p>
    </div>
  {:else}
    <div class="mt-2 hidden grid-cols-[126px_1fr] gap-x-3 md:grid" aria-hidden="true">
      <span></span>
      <div class="grid grid-cols-3 gap-x-3 pb-1.5 text-fine text-muted">
        {#each parts as part (part)}<span>{say(`part.${part}`)}</span>{/each}
      </div>
    </div>
    {#each week?.dates ?? [] as date, i (date)}
      {@const openings = guest.days.get(date) ?? []}
      <DayRow
        {guest}
        {date}
        {openings}
        next={openings.length === 0 ? nextAfter(date, week?.dates[i - 1]) : null}
        onchoose={(opening) => void choose(opening)}
      >
        {#snippet form()}
          {#if guest.chosen?.date === date}
            <BookingForm
              {guest}
              opening={guest.chosen}
              {circumstance}
              onreserve={(oneMore) => void reserve(oneMore)}
              onchoose={(opening) => void choose(opening)}
            />
          {/if}
        {/snippet}
      </DayRow>
    {/each}
    <div class="border-t border-line"></div>
  {/if}
  {#if guest.openings && guest.hasLater}
    <TextButton class="mt-3 min-h-11" onclick={() => void guest.showLater()}>{say('openings.further')}</TextButton>
  {/if}
  {#if guest.openings && !nothingAtAll}<OwnCalendar {guest} />{/if}
  {@render beneath?.(guest)}
</svelte:element>
