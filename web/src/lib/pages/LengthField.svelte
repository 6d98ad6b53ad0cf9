<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { inWords, unitOf, units } from './units';

  interface Props {
    id: string;
    label: string;
    /** Minutes. */
    value: number;
    was?: number | undefined;
  }

  let { id, label, value = $bindable(), was }: Props = $props();

  let unit = $state(unitOf(value));
  const isChanged = $derived(was !== undefined && was !== value);

  function setUnit(next: number): void {
    value = Math.round((value / unit) * next);
    unit = next;
  }
</script>

<span class="inline-flex items-center gap-1.5">
  <span class="w-[76px] shrink-0">
    <Input
      {id}
      type="number"
      aria-label={label}
      min="0"
      step="1"
      bind:value={() => value / unit, (count) => (value = Math.round(Number(count) * unit))}
      class="py-1.5 {isChanged ? 'border-l-4 border-l-ink' : ''}"
    />
  </span>
  <span class="w-28 shrink-0">
    <Select
      aria-label="{label}, unit"
      placeholder=""
      class="py-1.5"
      bind:value={() => unit, setUnit}
      items={units.map((choice) => ({ value: choice.value, name: choice.many }))}
    />
  </span>
  {#if isChanged && was !== undefined}<s class="text-sm whitespace-nowrap text-muted">{inWords(was)}</s>{/if}
</span>
