<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { dateIn, fullDate, shortDate, timeOf } from '$lib/time/format';
  import TextButton from '$lib/ui/TextButton.svelte';
  import ChooseTaker from './ChooseTaker.svelte';
  import { decide, seatsToFill } from './plan';
  import { whyAll } from './words';

  interface Props {
    line: Schemas['CoverLineView'];
    lines: Schemas['CoverLineView'][];
    away: string[];
    kinds: ReadonlyMap<string, Schemas['HostKind']>;
    /** The reader's zone. */
    zone: string;
    /** Whether it is left as it is. */
    isSkipped: boolean;
    onskip: (isSkipped: boolean) => void;
    /** What somebody decides of it; undefined to have it worked out again. */
    ondecide: (decision: Schemas['CoverDecision'] | undefined) => void;
  }

  let { line, lines, away, kinds, zone, isSkipped, onskip, ondecide }: Props = $props();

  const date = $derived(dateIn(line.start, zone));
  const guests = $derived(line.guests.join(', '));
  const after = $derived(line.after?.map((seat) => seat.name).join(', '));
</script>

<li class="flex gap-3 border-t border-line py-2.5 first:border-t-0 first:pt-0" data-session={line.session}>
  <Checkbox aria-label="Find cover for {guests}" bind:checked={() => !isSkipped, (on) => onskip(on !== true)} />
  <div class="grid min-w-0 flex-1 gap-x-5 md:grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)] {isSkipped ? 'text-muted' : ''}">
    <p class="min-w-0">
      <a class="font-semibold underline decoration-line-strong underline-offset-4" href="/work/bookings/{line.booking}"
        >{guests}</a
      ><br />
      <span title={fullDate(date)}>{line.page}, {shortDate(date)}, {timeOf(line.start, zone)}</span
      >{#if line.waits}<span class="text-muted"> (asked for)</span>{/if}
    </p>
    <div class="min-w-0">
      {#if isSkipped}
        <p>{line.before.map((seat) => seat.name).join(', ')} <span class="text-muted">as it is</span></p>
      {:else}
        <p>
          <span class="text-muted line-through">{line.before.map((seat) => seat.name).join(', ')}</span>
          <span aria-hidden="true">→</span><span class="sr-only">then</span>
          {#if after}<strong>{after}</strong>{:else}<strong class="text-brick-text">new times offered</strong>{/if}
          {#if line.byHand}<span class="text-fine text-muted">by hand</span>{/if}
        </p>
        {#if whyAll(line, lines, zone)}<p class="text-fine text-muted">{whyAll(line, lines, zone)}</p>{/if}
        {#if line.unreachable.length > 0}<p class="text-fine text-brick-text">
            No email of {line.unreachable.join(', ')} is known: ring them.
          </p>{/if}
        <p class="flex flex-wrap items-center gap-x-4">
          {#each seatsToFill(line) as seat (seat.seat)}<ChooseTaker
              {line}
              {seat}
              {away}
              {kinds}
              onchoose={(host) => ondecide(decide(line, seat.seat, host))}
            />{/each}
          {#if line.after}<TextButton
              class="min-h-6 text-fine"
              aria-label="Offer new times: {guests}"
              onclick={() => ondecide({ session: line.session, seats: null })}>Offer new times</TextButton
            >{/if}
          {#if line.byHand}<TextButton
              class="min-h-6 text-fine"
              aria-label="Work it out again: {guests}"
              onclick={() => ondecide(undefined)}>Work it out again</TextButton
            >{/if}
        </p>
      {/if}
    </div>
  </div>
</li>
