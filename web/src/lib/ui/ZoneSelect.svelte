<script lang="ts">
  import { Select } from 'flowbite-svelte';
  import { allZones } from '$lib/time/clock';

  interface Props {
    id: string;
    value: string;
    label?: string;
    class?: string;
  }

  let { id, value = $bindable(), label, class: more = '' }: Props = $props();

  // A zone that this browser does not list still stands there, or choosing nothing would change it.
  const zones = $derived([...new Set([...allZones(), value])].sort());
</script>

<Select {id} bind:value placeholder="" aria-label={label} class={more} items={zones.map((zone) => ({ value: zone, name: zone.replaceAll('_', ' ') }))} />
