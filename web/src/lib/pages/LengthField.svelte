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

  // svelte-ignore state_referenced_locally -- the unit is the reader's from then on
  let unit = $state(unitOf(value));
  const isChanged = $derived(was !== undefined && was !== value);

  function setUnit(next: number): void {
    value = Math.round((value / unit) * next);
    unit = next;
  }
</script>

<span class="inline-flex items-center gap-1.5">
  <Input
    {id}
    type="number"
    aria-label={label}
    min="0"
    step="1"
    bind:value={() => value / unit, (count) => (value = Math.round(Number(count) * unit))}
    class="w-[76px] py-1.5 {isChanged ? 'border-l-4 border-l-ink' : ''}"
  />
  <Select
    aria-label="{label}, unit"
    placeholder=""
    class="w-28 py-1.5"
    value={unit}
    onchange={(event) => setUnit(Number(event.currentTarget.value))}
    items={units.map((choice) => ({ value: choice.value, name: choice.many }))}
  />
  {#if isChanged && was !== undefined}<s class="text-sm text-muted">{inWords(was)}</s>{/if}
</span>
