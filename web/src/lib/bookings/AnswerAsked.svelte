<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import type { Schemas } from '$lib/api/client';
  import OpeningChoice from '$lib/moving/OpeningChoice.svelte';
  import { dateIn, dayName, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  interface Props {
    guest: string;
    waitsUntil: string;
    zone: string;
    now: string;
    firstDate: string;
    load: () => Promise<Schemas['Opening'][]>;
    accept: () => Promise<unknown>;
    decline: (form: Schemas['DeclineForm']) => Promise<unknown>;
    onanswered: () => void;
  }

  let { guest, waitsUntil, zone, now, firstDate, load, accept, decline, onanswered }: Props = $props();

  const MOST_OFFERED = 6;
  let declining = $state(false);
  let word = $state('');
  let offered = $state<string[]>([]);
  let openings = $state.raw<Schemas['Opening'][] | undefined>(undefined);
  const loading = new Attempt();
  const attempt = new Attempt();

  async function answer(doing: () => Promise<unknown>): Promise<void> {
    if (await attempt.run(doing)) onanswered();
  }

  async function offer(): Promise<void> {
    await loading.run(async () => (openings = await load()));
  }

  function toggle(start: string): void {
    if (offered.includes(start)) offered = offered.filter((other) => other !== start);
    else if (offered.length < MOST_OFFERED) offered = [...offered, start].sort();
  }

  const saying = (start: string): string => `${dayName(dateIn(start, zone))}, ${timeOf(start, zone)}`;
</script>

<section aria-labelledby="asked" class="rounded-2xl border border-glow-soft bg-glow-tint p-5 text-on-tint">
  <h2 id="asked" class="text-lg">{guest} waits for your answer</h2>
  <p>
    The time is kept until {saying(waitsUntil)}; after that it is free again, and {guest} hears that nobody could answer.
  </p>
  {#if attempt.problem}<div class="mt-3"><ProblemNote problem={attempt.problem} /></div>{/if}
  {#if declining}
    <div class="mt-3 rounded-xl border border-line bg-card p-4 text-ink">
      <Field label="Message to {guest} (optional)" id="decline-word" mend={attempt.problem?.errors?.word?.[0]}>
        <Textarea id="decline-word" class="w-full" rows={3} bind:value={word} />
      </Field>
      {#if offered.length > 0}
        <p class="mt-3">Offered instead:</p>
        <ul class="mt-1 flex flex-wrap gap-2">
          {#each offered as start (start)}
            <li>
              <button
                type="button"
                class="min-h-11 rounded-[10px] border border-line-strong bg-card px-3"
                aria-label="Remove {saying(start)}"
                onclick={() => toggle(start)}>{saying(start)} <span aria-hidden="true">×</span></button
              >
            </li>
          {/each}
        </ul>
      {/if}
      {#if openings}
        <OpeningChoice
          {openings}
          {zone}
          {now}
          {firstDate}
          chosen={offered}
          onchoose={(opening) => toggle(opening.start)}
        />
      {:else}
        <ActionButton class="mt-3 min-h-11" onclick={() => void offer()}>Offer other times</ActionButton>
      {/if}
      {#if loading.problem}<ProblemNote problem={loading.problem} />{/if}
      <div class="mt-4 flex flex-wrap justify-end gap-3">
        <ActionButton class="min-h-11" onclick={() => (declining = false)}>Back</ActionButton>
        <ActionButton
          kind="main"
          class="min-h-11"
          disabled={attempt.busy}
          onclick={() => void answer(() => decline({ word: word.trim(), offered }))}
          >{offered.length > 0 ? 'Decline and offer these' : 'Decline'}</ActionButton
        >
      </div>
    </div>
  {:else}
    <div class="mt-3 flex flex-wrap gap-3">
      <ActionButton kind="main" class="min-h-11" disabled={attempt.busy} onclick={() => void answer(accept)}
        >Accept it</ActionButton
      >
      <ActionButton class="min-h-11" disabled={attempt.busy} onclick={() => (declining = true)}
        >Decline, or offer other times</ActionButton
      >
    </div>
  {/if}
</section>
