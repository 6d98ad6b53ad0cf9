<script lang="ts">
  import type { Snippet } from 'svelte';
  import { lengthOf } from '$lib/time/format';
  import Segments from '$lib/ui/Segments.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { say } from '$lib/words/say.svelte';
  import DayRow from './DayRow.svelte';
  import { parts, type ShownOpening } from './days';
  import type { GuestPageState } from './GuestPageState.svelte';
  import { hostsInWords } from './inWords';
  import PageHead from './PageHead.svelte';
  import { placeWords } from './place';
  import WeekStrip from './WeekStrip.svelte';
  import ZoneChoice from './ZoneChoice.svelte';

  /**
   * A page as its guest sees it, drawn by the app and, before that has come, by the script that the first answer names:
   * nothing here may hang on anything but the state.
   */
  interface Props {
    guest: GuestPageState;
    onchoose: (opening: ShownOpening) => void;
    /** What stands above the weeks. */
    above?: Snippet;
    /** What stands between the weeks and their openings. */
    notice?: Snippet;
    /** What stands in place of openings that are not there yet. */
    loading?: Snippet;
    /** What stands in the row of a date. */
    form?: Snippet<[string]>;
    beneath?: Snippet;
    /** How many days and weeks are drawn at the most, where only what is in sight is to be. */
    most?: { days: number; weeks: number };
  }

  let { guest, onchoose, above, notice, loading, form: formOf, beneath, most }: Props = $props();

  const MOST_OPEN = 240;

  // svelte-ignore state_referenced_locally
  const { page } = guest;
  const place = placeWords(page.placeKind, page.place, page.hostsRing);
  const names = hostsInWords(page.seats);
  // Of the durations the shortest comes first; which one is preset is another matter.
  const durations = [...page.durations].sort((one, other) => one - other);
  const parties = Array.from({ length: page.mostParty }, (_, at) => at + 1);
  const week = $derived(guest.weeks.find((candidate) => candidate.monday === guest.week));
  let reading = $state(false);
  const nothingAtAll = $derived(guest.openings?.length === 0);
  const about = page.description !== '' || page.directions !== '';
  // What is short stands open; of what is long the beginning does, so that the times stay in sight.
  const isLong = (page.description + page.directions).replace(/<[^>]*>/g, '').length > MOST_OPEN;

  /** An empty day names the next opening, but only the first of several empty days in a row. */
  function nextAfter(date: string, previous: string | undefined): ShownOpening | null {
    if (previous !== undefined && !guest.days.has(previous)) return null;
    return guest.after(date) ?? null;
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
  deskPath={guest.isPreview ? undefined : page.deskPath}
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

<svelte:element this={guest.isPreview ? 'div' : 'main'} class="mx-auto max-w-[1216px] px-[18px] pb-16 md:px-6">
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
  {@render above?.()}

  <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 pt-4">
    <WeekStrip
      weeks={guest.weeks}
      countOf={(date) => guest.days.get(date)?.length ?? 0}
      chosen={guest.week}
      most={most?.weeks}
      onchoose={(monday) => guest.turnTo(monday)}
    />
    <ZoneChoice {guest} />
  </div>

  {@render notice?.()}
  {#if guest.openings === undefined}
    {@render loading?.()}
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
    {#each week?.dates.slice(0, most?.days) ?? [] as date, i (date)}
      {@const openings = guest.days.get(date) ?? []}
      <DayRow
        {guest}
        {date}
        {openings}
        next={openings.length === 0 ? nextAfter(date, week?.dates[i - 1]) : null}
        {onchoose}
      >
        {#snippet form()}{@render formOf?.(date)}{/snippet}
      </DayRow>
    {/each}
    <div class="border-t border-line"></div>
  {/if}
  {#if guest.openings && guest.hasLater && !most}
    <TextButton class="mt-3 min-h-11" onclick={() => void guest.showLater()}>{say('openings.further')}</TextButton>
  {/if}
  {@render beneath?.()}
</svelte:element>
