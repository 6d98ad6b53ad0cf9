<script lang="ts">
  import type { Temporal } from 'temporal-polyfill';
  import { cityOf, sameClock } from '$lib/time/clock';
  import { timeOf } from '$lib/time/format';

  interface Props {
    pageZone: string;
    own: string;
    zone: string;
    now: Temporal.Instant;
    onchoose: (zone: string) => void;
  }

  let { pageZone, own, zone, now, onchoose }: Props = $props();

  const other = $derived(zone === pageZone ? own : pageZone);
  const differs = $derived(!sameClock(pageZone, own, now));
</script>

<p class="text-sm text-muted md:text-right">
  <span class="md:block">{zone === pageZone ? 'Times in' : 'Times where you are,'}</span>
  <strong class="text-[15px] text-ink">{cityOf(zone)}, {timeOf(now, zone)} now</strong>
  {#if differs}
    <button type="button" class="min-h-11 md:ml-1.5 text-[15px] text-ink underline underline-offset-4 md:min-h-0" onclick={() => onchoose(other)}>
      {other === own ? `show mine (${cityOf(own)})` : `show ${cityOf(pageZone)}`}
    </button>
  {/if}
</p>
