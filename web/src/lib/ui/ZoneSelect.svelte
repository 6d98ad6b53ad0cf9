<script lang="ts">
  import { Select } from 'flowbite-svelte';
  import { allZones } from '$lib/time/clock';

  interface Props {
    id: string;
    value: string;
    label?: string;
    class?: string;
    /** Of the box itself, as class is of what is around it. */
    box?: string;
  }

  let { id, value = $bindable(), label, class: more = '', box = '' }: Props = $props();

  // A zone that this browser does not list still stands there, or choosing nothing would change it.
  const zones = $derived([...new Set([...allZones(), value])].sort());
</script>

<Select
  {id}
  bind:value
  placeholder=""
  aria-label={label}
  class={more}
  classes={{ select: box }}
  items={zones.map((zone) => ({ value: zone, name: zone.replaceAll('_', ' ') }))}
/>
