<script lang="ts">
  import { Looking } from '$lib/api/Looking.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import ShownHow from '$lib/letters/ShownHow.svelte';
  import ShownLetter from '$lib/letters/ShownLetter.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  /** The letters as their guests will read them, one a guest. */
  let { form }: { form: Schemas['CoverForm'] } = $props();

  let letters = $state.raw<Schemas['CoverLetterView'][]>([]);
  let at = $state(0);
  let how = $state<'text' | 'html'>('text');
  const looking = new Looking();
  const shown = $derived(letters[Math.min(at, letters.length - 1)]);

  $effect(() => {
    const asked = form;
    const timer = setTimeout(() => {
      void looking.look(async () => {
        letters = await must(api.POST('/api/covers/letters', { body: asked }));
      });
    }, 350);
    return () => clearTimeout(timer);
  });
</script>

{#if looking.problem}<ProblemNote problem={looking.problem} />{/if}
{#if shown}
  <div class="mb-2 flex flex-wrap items-center justify-between gap-3">
    <p>
      <span class="text-muted">Letter {letters.indexOf(shown) + 1} of {letters.length}, to</span>
      {shown.name}
    </p>
    <div class="flex flex-wrap gap-2">
      <ShownHow bind:how />
      <ActionButton class="py-1" disabled={at === 0} onclick={() => (at -= 1)}>Letter before</ActionButton>
      <ActionButton class="py-1" disabled={at >= letters.length - 1} onclick={() => (at += 1)}>Next letter</ActionButton
      >
    </div>
  </div>
  <ShownLetter letter={shown} {how} />
{:else if !looking.busy && !looking.problem}
  <p class="text-muted">No letter is written.</p>
{/if}
