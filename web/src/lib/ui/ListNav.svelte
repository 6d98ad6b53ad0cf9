<script lang="ts">
  import ActionButton from './ActionButton.svelte';
  import { inGroups, type ListPlace } from './listPlace';

  interface Props {
    /** What there is more of, for readers of screens. */
    label: string;
    list: { total: number; before: string | null; after: string | null };
    /** How many are shown. */
    shown: number;
    back?: string;
    on?: string;
    onplace: (place: ListPlace) => void;
  }

  let { label, list, shown, back = 'Before', on = 'After', onplace }: Props = $props();
</script>

<!-- Runs of a list that is longer than one; nothing where it is not. -->
{#if list.before !== null || list.after !== null}
  <nav aria-label={label} class="mt-3 flex flex-wrap items-center gap-3 text-muted">
    <ActionButton disabled={list.before === null} onclick={() => list.before && onplace({ before: list.before })}
      >{back}</ActionButton
    >
    {inGroups(shown)} of {inGroups(list.total)}
    <ActionButton disabled={list.after === null} onclick={() => list.after && onplace({ after: list.after })}
      >{on}</ActionButton
    >
    {#if list.before !== null}<ActionButton onclick={() => onplace({})}>To the start</ActionButton>{/if}
  </nav>
{/if}
