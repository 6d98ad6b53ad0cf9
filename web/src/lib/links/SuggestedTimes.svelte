<script lang="ts">
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import { timeOf } from '$lib/time/format';
  import { cityOf } from '$lib/time/clock';
  import type { LinkEditing } from './LinkEditing.svelte';
  import { dayAndTime, whyWords } from './words';

  interface Props {
    link: LinkEditing;
    nameOf: (host: string) => string;
  }

  let { link, nameOf }: Props = $props();

  const suggestions = $derived(link.supply?.suggestions ?? []);
  const { zone } = $derived(link.form.times);

  function why(suggestion: (typeof suggestions)[number]): string {
    const theirs = link.form.guestZone;
    const words = whyWords(suggestion, nameOf);
    return theirs !== '' && theirs !== zone
      ? `${timeOf(suggestion.start, theirs)} in ${cityOf(theirs)}, ${words}`
      : words;
  }

  function takeAll(): void {
    for (const suggestion of suggestions) link.pick(suggestion.start);
  }
</script>

{#if suggestions.length > 0}
  <section aria-labelledby="suggested" class="flex flex-wrap items-center gap-2">
    <h2 id="suggested" class="mr-1 text-part">Suggested</h2>
    {#each suggestions as suggestion (suggestion.start)}
      <button
        type="button"
        data-suggested={suggestion.start}
        class="min-h-9 rounded-full border border-line-strong bg-card px-3 text-sm hover:bg-glow-tint max-md:min-h-11"
        onclick={() => link.pick(suggestion.start)}
      >
        <span class="sr-only">Pick </span><strong>{dayAndTime(suggestion.start, zone)}</strong>
        <span class="text-muted">{why(suggestion)}</span>
      </button>
    {/each}
    <ActionButton kind="quiet" class="py-1" onclick={takeAll}>Pick all {suggestions.length}</ActionButton>
  </section>
{/if}
