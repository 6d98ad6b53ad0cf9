<script lang="ts">
  import { goto } from '$app/navigation';
  import { Textarea } from 'flowbite-svelte';
  import { onMount, untrack } from 'svelte';
  import type { Schemas } from '$lib/api/client';
  import { mendOf } from '$lib/api/problem';
  import { watchChanges } from '$lib/live/changes';
  import QuestionFields from '$lib/questions/QuestionFields.svelte';
  import { lengthOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { say } from '$lib/words/say.svelte';
  import { hostsInWords } from '../inWords';
  import OwnCalendar from '../OwnCalendar.svelte';
  import PageHead from '../PageHead.svelte';
  import { placeWords } from '../place';
  import WhoIs from '../WhoIs.svelte';
  import ZoneChoice from '../ZoneChoice.svelte';
  import AskedDay from './AskedDay.svelte';
  import { AskedState } from './AskedState.svelte';

  interface Props {
    address: string;
    link: Schemas['GuestLink'];
    asks: Schemas['AskedOfGuest'];
  }

  let { address, link, asks }: Props = $props();

  // Another link is another route visit, which makes this component anew.
  // svelte-ignore state_referenced_locally
  const asked = new AskedState(address, link, asks);
  const { guest } = asked;
  const { page } = guest;
  const place = placeWords(page.placeKind, page.place, page.hostsRing);
  const durations = [...page.durations].sort((one, other) => one - other);
  const mend = $derived(mendOf(asked.problem, 'stretches'));

  onMount(() => {
    const tick = setInterval(() => (guest.now = guest.clock.now()), 10_000);
    const unwatch = watchChanges(`/api/public/links/${encodeURIComponent(address)}/changes`, () => void asked.cross());
    return () => {
      clearInterval(tick);
      unwatch();
    };
  });

  $effect(() => {
    // What is marked changes by this; only what a calendar took is a cause for it.
    if (guest.taken.length > 0) untrack(() => asked.leaveOutTaken());
  });

  async function send(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const path = await asked.send();
    if (path !== undefined) await goto(path, { replaceState: true });
  }

  function chooseDuration(minutes: number): void {
    guest.duration = minutes;
    void asked.cross();
  }
</script>

<PageHead
  workspace={page.workspace}
  desk={page.desk}
  title={page.title}
  hosts={page.hosts}
  names={hostsInWords(page.seats)}
  accent={page.accent}
  logo={page.logo}
  picture={page.banner}
  deskPath={page.deskPath}
>
  {#if durations.length > 1}
    <Segments
      onNight
      label={say('durations')}
      options={durations.map((minutes) => ({ value: minutes, text: lengthOf(minutes) }))}
      value={guest.duration}
      onchoose={chooseDuration}
    />
  {:else}
    <span>{lengthOf(guest.duration)}</span>
  {/if}
  {#if place}<span class="text-on-night">{place}</span>{/if}
</PageHead>

<main class="mx-auto max-w-[1216px] px-[18px] pb-16 md:px-6">
  {#if page.description !== ''}
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- made safe by the server -->
    <div class="prose-guest max-w-3xl pt-4">{@html page.description}</div>
  {/if}
  <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 pt-4">
    <div class="max-w-3xl">
      <h2 class="text-xl">{say('asked.title')}</h2>
      <p>{say('asked.how')} {asks.booksByItself ? say('asked.books') : say('asked.chooses', { name: link.ask })}</p>
      {#if asks.sent > 0}<p class="text-muted">{say('asked.before')}</p>{/if}
    </div>
    <ZoneChoice {guest} onchoose={(zone) => asked.chooseZone(zone)} />
  </div>

  <form novalidate onsubmit={(event) => void send(event)}>
    <div class="mt-3 space-y-2 md:space-y-0">
      {#each asked.shown as date (date)}<AskedDay {asked} {date} />{/each}
    </div>
    {#if asked.dates.length > asked.daysShown}
      <TextButton class="mt-2 min-h-11" onclick={() => (asked.daysShown += 14)}>{say('asked.later')}</TextButton>
    {/if}
    {#if asked.isFull}<p class="mt-2" role="status">{say('asked.full')}</p>{/if}
    {#if mend}<p class="mt-2 text-brick" role="alert">{mend}</p>{/if}

    <OwnCalendar {guest} />
    {#if guest.calendarNote?.isRead}<p class="mt-1 text-sm text-muted">{say('asked.calendar')}</p>{/if}

    {#if asked.sent}
      <p role="status" class="mt-4 rounded-2xl border border-line bg-card px-4 py-3">
        {say('asked.sent', { name: link.ask })}
        <TextButton class="min-h-11" onclick={() => (asked.sent = false)}>{say('asked.change')}</TextButton>
      </p>
    {:else}
      <div class="mt-4 grid gap-4 rounded-2xl border border-line-strong bg-card p-4 md:grid-cols-2">
        <WhoIs {guest} problem={asked.problem} under="" />
        <!-- Whoever is booked by hand answers on their private link. -->
        {#if asks.booksByItself}<QuestionFields
            questions={page.questions}
            bind:answers={guest.typed.answers}
            problem={asked.problem}
          />{/if}
        <div class="md:col-span-2">
          <label class="mb-1 block" for="asked-words">{say('wish.words')}</label>
          <Textarea id="asked-words" rows={2} class="w-full" maxlength={1000} bind:value={asked.words} />
        </div>
        {#if asked.problem && !asked.problem.errors}<div class="md:col-span-2">
            <ProblemNote problem={asked.problem} />
          </div>{/if}
        <ActionButton
          kind="main"
          type="submit"
          disabled={asked.sending}
          class="min-h-11 px-5 max-md:w-full md:col-span-2 md:justify-self-end"
          >{asks.booksByItself ? say('asked.send-book') : say('asked.send')}</ActionButton
        >
      </div>
    {/if}
  </form>
</main>
