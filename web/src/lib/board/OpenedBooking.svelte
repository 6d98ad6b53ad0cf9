<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import CancelModal from '$lib/bookings/CancelModal.svelte';
  import HostsOfBooking from '$lib/bookings/HostsOfBooking.svelte';
  import { askAnew } from '$lib/live/anew';
  import { rangeOf } from '$lib/moving/range';
  import { cityOf, sameClock } from '$lib/time/clock';
  import { dateIn, fullDate, shortDate, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { undone } from '$lib/undo/undone.svelte';
  import { stepFrom } from './moving';

  interface Props {
    id: string;
    /** The board's zone. */
    zone: string;
    /** The openings it can be moved to, while it is being moved; lit on the board. */
    openings: readonly Schemas['Opening'][] | undefined;
    /** The one that is chosen. */
    chosen: Schemas['Opening'] | undefined;
    /** Called with the openings when moving begins, and with undefined when it ends. */
    onmoving: (openings: Schemas['Opening'][] | undefined) => void;
    onchoose: (opening: Schemas['Opening']) => void;
    onloaded: (detail: Schemas['BookingDetail']) => void;
    onclose: () => void;
  }

  let { id, zone, openings, chosen, onmoving, onchoose, onloaded, onclose }: Props = $props();

  let card = $state<HTMLElement | undefined>(undefined);
  let detail = $state.raw<Schemas['BookingDetail'] | undefined>(undefined);
  let cancelling = $state(false);
  let told = $state('');
  const loading = new Attempt();
  const finding = new Attempt();
  const moving = new Attempt();
  const row = $derived(detail?.row);
  const path = $derived({ id });
  const mayMove = $derived(row?.mayChange && detail && Date.parse(row.start) > Date.parse(detail.now));
  const from = $derived(chosen?.start ?? row?.start ?? '');
  const [earlier, later] = $derived([
    openings && stepFrom(openings, from, -1),
    openings && stepFrom(openings, from, 1),
  ]);

  async function load(): Promise<void> {
    await loading.run(async () => {
      detail = await must(api.GET('/api/bookings/{id}', { params: { path } }));
      onloaded(detail);
    });
  }

  onMount(() => {
    void load().then(() => card?.focus());
  });

  // What was done here may be taken back at the head of the screen.
  $effect(() => {
    if (undone.count > 0)
      untrack(() => {
        told = '';
        void load();
      });
  });

  async function begin(): Promise<void> {
    const of = detail;
    if (!of) return;
    moving.problem = undefined;
    await finding.run(async () => {
      const query = rangeOf(of.firstDate, of.lastDate);
      onmoving((await must(api.GET('/api/bookings/{id}/openings', { params: { path, query } }))).openings);
      // The button that was pressed can't be pressed any more: keys lead on from here.
      card?.focus();
    });
  }

  async function move(): Promise<void> {
    const to = chosen;
    if (!to) return;
    const isDone = await moving.run(() =>
      must(api.POST('/api/bookings/{id}/move', { params: { path }, body: { start: to.start } })),
    );
    if (!isDone) {
      // What has gone is not lit again.
      const { problem } = moving;
      await begin();
      moving.problem = problem;
      return;
    }
    told = 'Moved.';
    onmoving(undefined);
    await Promise.all([load(), askAnew()]);
    card?.focus();
  }

  function key(event: KeyboardEvent): void {
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    // Among choices, and in what is typed, arrows have a meaning of their own.
    if ((event.target as HTMLElement).matches('input, select, textarea')) return;
    const step = event.key === 'ArrowLeft' ? earlier : event.key === 'ArrowRight' ? later : undefined;
    if (step) onchoose(step);
    else if (event.key === 'Escape' && openings) onmoving(undefined);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<!-- While it is moved, left and right lead from opening to opening wherever in the card one is. -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<section
  bind:this={card}
  tabindex="-1"
  aria-label="The booking that was pressed"
  class="mb-3 rounded-2xl border border-line bg-card p-4 focus:outline-none focus-visible:outline-3 md:sticky md:top-16 md:z-10 md:shadow-sm"
  onkeydown={key}
>
  {#if loading.problem}<ProblemNote problem={loading.problem} />{/if}
  {#if row && detail}
    <div class="flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
      <div class="min-w-0">
        <h2 class="text-lg">{row.isAmongOurselves ? row.page : row.guestName}</h2>
        <p>
          {row.isAmongOurselves ? '' : `${row.page}, `}{fullDate(dateIn(row.start, zone))}, {timeOf(row.start, zone)} – {timeOf(
            row.end,
            zone,
          )}{sameClock(zone, row.guestZone, row.start) || row.isAmongOurselves
            ? ''
            : ` (${timeOf(row.start, row.guestZone)} in ${cityOf(row.guestZone)})`}
        </p>
        {#if row.cancelledAt}<p class="font-semibold text-brick">Cancelled</p>{:else if row.waitsUntil}<p
            class="font-semibold"
          >
            Asked for; it waits for a yes.
          </p>{/if}
        <div class="mt-1">
          <HostsOfBooking
            session={row.sessionId}
            hosts={detail.hosts}
            guests={row.isAmongOurselves ? '' : row.guestName}
            mayChange={row.mayChange && !row.cancelledAt}
            onchanged={(what) => {
              told = what;
              void load();
            }}
          />
        </div>
        {#if told}<p role="status" class="mt-1 text-sea-text">{told}</p>{/if}
      </div>
      <div class="flex flex-wrap items-center gap-2">
        <ActionButton href="/work/bookings/{id}">Open</ActionButton>
        {#if mayMove && !row.cancelledAt}
          <ActionButton disabled={finding.busy || openings !== undefined} onclick={() => void begin()}
            >Move</ActionButton
          >
        {/if}
        {#if row.mayChange && !row.cancelledAt}<ActionButton onclick={() => (cancelling = true)}>Cancel</ActionButton
          >{/if}
        <TextButton class="min-h-9 px-1 text-sm" onclick={onclose}>Close</TextButton>
      </div>
    </div>
    {#if finding.problem}<div class="mt-2"><ProblemNote problem={finding.problem} /></div>{/if}
    {#if openings}
      <div class="mt-3 border-t border-line pt-3">
        {#if moving.problem}<div class="mb-2"><ProblemNote problem={moving.problem} /></div>{/if}
        {#if openings.length === 0}
          <p>Nothing of this page is open.</p>
        {:else}
          <div class="flex flex-wrap items-center gap-2">
            <ActionButton disabled={!earlier} onclick={() => earlier && onchoose(earlier)}>Earlier opening</ActionButton
            >
            <ActionButton disabled={!later} onclick={() => later && onchoose(later)}>Later opening</ActionButton>
            {#if chosen}
              <ActionButton kind="main" disabled={moving.busy} onclick={() => void move()}
                >Move to {shortDate(dateIn(chosen.start, zone))}, {timeOf(chosen.start, zone)}</ActionButton
              >
            {/if}
            <TextButton class="min-h-9 px-1 text-sm" onclick={() => onmoving(undefined)}>Don’t move it</TextButton>
          </div>
          <p class="mt-2 text-fine text-muted" role="status">
            {chosen
              ? `${fullDate(dateIn(chosen.start, zone))}, ${timeOf(chosen.start, zone)}: the guest is told once it is moved. Whoever of its page is free then has it.`
              : 'Its openings are lit below: drag the bar to one, or go from one to the next with left and right.'}
          </p>
        {/if}
      </div>
    {/if}
  {:else if loading.busy}
    <p class="text-muted">Loading …</p>
  {/if}
</section>

{#if cancelling && row}
  <CancelModal
    booking="the booking of {row.guestName}"
    reader={row.guestName}
    cancel={(word) => must(api.POST('/api/bookings/{id}/cancel', { params: { path }, body: { word } }))}
    oncancelled={() => {
      cancelling = false;
      void load();
      void askAnew();
    }}
    onclose={() => (cancelling = false)}
  />
{/if}
