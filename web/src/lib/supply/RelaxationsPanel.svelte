<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { relaxationWords } from './relaxations';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    relaxations: Schemas['RelaxationsAnswer'] | undefined;
    /** Where a change is made that is no change of this one. */
    elsewhere: (relaxation: Schemas['RelaxationView']) => { text: string; href: string } | undefined;
    mayEdit: boolean;
    ontake: (relaxation: Schemas['RelaxationView']) => void;
  }

  let { relaxations, elsewhere, mayEdit, ontake }: Props = $props();

  const MOST = 6;
  const gaining = $derived((relaxations?.relaxations ?? []).filter((one) => one.gained > 0).slice(0, MOST));
  // The rules people think of first; that they would not help is worth knowing.
  const inVain = $derived.by(() => {
    const none = new Set((relaxations?.relaxations ?? []).filter((one) => one.gained === 0).map((one) => one.rule));
    const said = [
      none.has('noticeDropped') && 'shorter notice',
      none.has('bufferAfterDropped') && none.has('bufferBeforeDropped') && 'smaller buffers',
      none.has('longerWindow') && 'a longer window',
      none.has('pageDailyCapRaised') && 'a higher cap',
    ].filter((words) => typeof words === 'string');
    return said;
  });

  function listed(words: string[]): string {
    const all = words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} or ${words.at(-1) ?? ''}`;
    return all.slice(0, 1).toUpperCase() + all.slice(1);
  }
</script>

{#if relaxations}
  <section aria-labelledby="relaxations" class="rounded-2xl border border-line bg-card p-4">
    <h2 id="relaxations" class="text-part">Ways to open more</h2>
    {#if gaining.length === 0}<p class="mt-1 text-muted">
        No single rule change would open more in these {relaxations.weeks} weeks.
      </p>{/if}
    <ul class="mt-1">
      {#each gaining as relaxation, i (i)}
        {@const place = elsewhere(relaxation)}
        <li class="flex items-center gap-3 border-t border-line py-1.5 first:border-t-0">
          <span class="min-w-0 flex-1"
            >{relaxationWords(relaxation)}{#if relaxation.lost > 0}{' '}<span class="text-sm text-muted"
                >and takes {relaxation.lost}</span
              >{/if}</span
          >
          {#if place}
            <a class="text-sm underline underline-offset-4" href={place.href}>{place.text}</a>
          {:else if mayEdit}
            <TextButton
              class="min-h-8 text-sm"
              aria-label="Apply: {relaxationWords(relaxation)}"
              onclick={() => ontake(relaxation)}>apply</TextButton
            >
          {/if}
          <strong class="w-11 text-right text-sea-text">+{relaxation.gained}</strong>
        </li>
      {/each}
    </ul>
    {#if inVain.length > 0}<p class="border-t border-line pt-2 text-sm text-muted">
        {listed(inVain)} would add none.
      </p>{/if}
  </section>
{/if}
