<script lang="ts">
  import { Helper, Label } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import Mend from './Mend.svelte';

  interface Props {
    label: string;
    /** The id of the control, which the label and the mend belong to. */
    id: string;
    /** What to do about a fault; shown in place of the hint. */
    mend?: string | undefined;
    hint?: string;
    class?: string;
    children: Snippet;
  }

  let { label, id, mend, hint, class: more = '', children }: Props = $props();
</script>

<div class={more}>
  <Label for={id} class="mb-1 font-normal text-ink">{label}</Label>
  {@render children()}
  {#if mend}
    <Mend id="{id}-mend" words={mend} />
  {:else if hint}
    <Helper id="{id}-hint" class="mt-1 text-sm text-muted">{hint}</Helper>
  {/if}
</div>
