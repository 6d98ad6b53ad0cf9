<script lang="ts">
  import TextButton from '$lib/ui/TextButton.svelte';
  import { dayMonth } from '$lib/time/format';
  import type { EditorState } from './EditorState.svelte';
  import { blocksBeyond } from './missingPlace';

  let { editor }: { editor: EditorState } = $props();

  const beyond = $derived(editor.supply && blocksBeyond(editor.form, editor.supply.today));
</script>

{#if beyond}
  <p
    class="mb-3 flex flex-wrap items-center gap-x-3 rounded-lg border-l-4 border-edge bg-lane px-4 py-2"
    role="status"
    data-test="blocks-beyond"
  >
    Office hours go on until {dayMonth(beyond.last)}, but guests are offered only the next {editor.form.times.aheadDays} days.
    <TextButton class="min-h-8" onclick={() => (editor.form.times.aheadDays = beyond.days)}
      >Offer {beyond.days} days ahead</TextButton
    >
  </p>
{/if}
