<script lang="ts">
  import { onMount } from 'svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import type { Schemas } from '$lib/api/client';
  import { beside, inBrackets } from '$lib/guest/beside';
  import type { ShownOpening } from '$lib/guest/days';
  import { timeOf, weekday } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import OpeningChoice from './OpeningChoice.svelte';
  import { say } from '$lib/words/say.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    zone: string;
    /** The zone whose hour stands beside that of `zone`, where clocks differ. */
    otherZone: string;
    now: string;
    firstDate: string;
    /** Who is told of it, in words. */
    told: string;
    load: () => Promise<Schemas['Opening'][]>;
    move: (start: string) => Promise<unknown>;
    onmoved: () => void;
    onclose: () => void;
  }

  let { zone, otherZone, now, firstDate, told, load, move, onmoved, onclose }: Props = $props();

  let panel = $state<HTMLElement | undefined>(undefined);
  let openings = $state.raw<Schemas['Opening'][] | undefined>(undefined);
  const loading = new Attempt();
  let chosen = $state.raw<ShownOpening | undefined>(undefined);
  const attempt = new Attempt();

  async function ask(): Promise<void> {
    await loading.run(async () => (openings = await load()));
  }

  onMount(() => {
    // Whoever asked for it may stand further down.
    panel?.scrollIntoView({ block: 'start' });
    void ask();
  });

  async function take(): Promise<void> {
    const opening = chosen;
    if (!opening) return;
    if (await attempt.run(() => move(opening.start))) return onmoved();
    // What has gone is not offered again.
    if (attempt.problem?.status === 409) await ask();
  }
</script>

<section
  bind:this={panel}
  aria-labelledby="move-title"
  class="scroll-mt-4 rounded-2xl border border-line bg-card p-5 md:p-7"
>
  <div class="flex flex-wrap items-baseline justify-between gap-3">
    <h2 id="move-title" class="text-xl">{say('move.title')}</h2>
    <TextButton class="min-h-11 text-muted" onclick={onclose}>{say('move.leave')}</TextButton>
  </div>
  {#if loading.problem}<ProblemNote problem={loading.problem} />{/if}
  {#if openings}
    <OpeningChoice
      {openings}
      {zone}
      {now}
      {firstDate}
      chosen={chosen ? [chosen.start] : []}
      onchoose={(opening) => {
        chosen = opening;
        attempt.problem = undefined;
      }}
    >
      {#snippet form()}
        {#if chosen}
          <div class="mb-3 rounded-2xl border border-line-strong bg-paper p-4">
            {#if attempt.problem}<div class="mb-3"><ProblemNote problem={attempt.problem} /></div>{/if}
            <div class="flex flex-wrap items-center justify-between gap-3">
              <p>{told}</p>
              <ActionButton
                kind="main"
                class="min-h-11 max-md:w-full"
                disabled={attempt.busy || attempt.problem?.status === 409}
                onclick={() => void take()}
                >{say('move.do', { time: timeOf(chosen.start, zone), day: weekday(chosen.date) }) +
                  inBrackets(beside(chosen.start, zone, otherZone))}</ActionButton
              >
            </div>
          </div>
        {/if}
      {/snippet}
    </OpeningChoice>
  {:else if !loading.problem}
    <p class="py-3 text-muted">{say('move.loading')}</p>
  {/if}
</section>
