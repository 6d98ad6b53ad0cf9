<script lang="ts">
  import { goto } from '$app/navigation';
  import { onMount, tick, type Snippet } from 'svelte';
  import type { Schemas } from '$lib/api/client';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { say } from '$lib/words/say.svelte';
  import BookingForm from './BookingForm.svelte';
  import type { ShownOpening } from './days';
  import { leaveFirst } from './first/presses';
  import { leaveFor, tellFrame, tellHeight } from './frame';
  import { GuestPageState } from './GuestPageState.svelte';
  import GuestScreen from './GuestScreen.svelte';
  import { hostsInWords } from './inWords';
  import OwnCalendar from './OwnCalendar.svelte';
  import { placeWords } from './place';
  import type { GuestSource } from './source';
  import Tried from './Tried.svelte';

  interface Props {
    source: GuestSource;
    /** Where they came with the page already. */
    openings?: Schemas['OpeningsAnswer'] | undefined;
    /** What stands beneath the openings. */
    beneath?: Snippet<[GuestPageState]>;
  }

  let { source, openings, beneath: under }: Props = $props();

  // Another page is another route visit, which makes this component anew.
  // svelte-ignore state_referenced_locally
  const guest = new GuestPageState(source);
  // svelte-ignore state_referenced_locally
  if (openings) guest.take(openings);
  const takeOver = leaveFirst(tick);
  const { page } = guest;
  const place = placeWords(page.placeKind, page.place, page.hostsRing);
  const names = hostsInWords(page.seats);
  const circumstance = [place, names && say('with-names', { names })].filter((words) => words !== '').join(', ');
  let wentMeanwhile = $state(false);
  let tried = $state.raw<Schemas['TriedBooking'] | undefined>(undefined);
  const nothingAtAll = $derived(guest.openings?.length === 0);
  onMount(() => {
    void guest.load().then(chooseAsked);
    void takeOver();
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

<GuestScreen {guest} onchoose={(opening) => void choose(opening)}>
  {#snippet above()}
    {#if tried}<Tried {tried} zone={page.zone} onclose={() => (tried = undefined)} />{/if}
  {/snippet}
  {#snippet notice()}
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
  {/snippet}
  {#snippet loading()}
    <div class="mt-6 h-48 animate-pulse rounded-2xl bg-lane" role="status" aria-label={say('openings.loading')}></div>
  {/snippet}
  {#snippet form(date: string)}
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
  {#snippet beneath()}
    {#if guest.openings && !nothingAtAll}<OwnCalendar {guest} />{/if}
    {@render under?.(guest)}
  {/snippet}
</GuestScreen>
