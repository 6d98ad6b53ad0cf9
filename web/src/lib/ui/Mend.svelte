<script lang="ts">
  import { onMount } from 'svelte';

  /**
   * What to do about a fault, beneath the control that it is about. It goes as soon as something is changed there; if
   * it is still wrong, the next press says so again.
   */
  let { words, id, class: more = 'mt-1' }: { words: string; id?: string; class?: string } = $props();

  let node = $state<HTMLElement | undefined>(undefined);
  let isMended = $state(false);

  onMount(() => {
    const part = node?.parentElement;
    const mended = (): void => void (isMended = true);
    part?.addEventListener('input', mended);
    part?.addEventListener('change', mended);
    return () => {
      part?.removeEventListener('input', mended);
      part?.removeEventListener('change', mended);
    };
  });
</script>

{#if !isMended}<p bind:this={node} {id} data-mend class="text-sm text-brick {more}" role="alert">{words}</p>{/if}
