<script lang="ts">
  import { Input } from 'flowbite-svelte';

  interface Props {
    id: string;
    label: string;
    value: number;
    /** Shown struck through where the value is changed and not saved. */
    was?: number | undefined;
    min?: number;
    max: number;
  }

  let { id, label, value = $bindable(), was, min = 0, max }: Props = $props();

  const isChanged = $derived(was !== undefined && was !== value);
</script>

<span class="inline-flex items-center gap-1.5">
  <span class="w-[76px] shrink-0">
    <Input
      {id}
      type="number"
      aria-label={label}
      {min}
      {max}
      step="1"
      bind:value
      class="py-1.5 {isChanged ? 'border-l-4 border-l-ink' : ''}"
    />
  </span>
  {#if isChanged}<s class="text-sm text-muted" aria-label="was {was}">{was}</s>{/if}
</span>
