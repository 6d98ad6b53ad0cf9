<script lang="ts">
  import { cityOf, sameClock } from '$lib/time/clock';
  import { timeOf } from '$lib/time/format';
  import { say } from '$lib/words/say.svelte';
  import type { GuestPageState } from './GuestPageState.svelte';

  interface Props {
    guest: GuestPageState;
    /** In place of choosing it at once. */
    onchoose?: (zone: string) => void;
  }

  let { guest, onchoose = (zone) => guest.chooseZone(zone) }: Props = $props();

  const { page, own } = $derived(guest);
  const other = $derived(guest.zone === page.zone ? own : page.zone);
  const differs = $derived(!sameClock(page.zone, own, guest.now));
  const link = 'min-h-11 md:ml-1.5 text-body text-ink underline underline-offset-4 md:min-h-0';
</script>

<p class="text-sm text-muted md:text-right">
  <span class="md:block"
    >{page.isPlaceZoneOnly ? say('zone.at-place') : guest.zone === page.zone ? say('zone.in') : say('zone.yours')}</span
  >
  <strong class="text-body text-ink"
    >{say('zone.now', { city: cityOf(guest.zone), time: timeOf(guest.now, guest.zone) })}</strong
  >
  {#if differs && page.isPlaceZoneOnly}
    <button type="button" aria-pressed={guest.alsoMine} class={link} onclick={() => (guest.alsoMine = !guest.alsoMine)}>
      {guest.alsoMine ? say('zone.without-mine') : say('zone.also-mine', { city: cityOf(own) })}
    </button>
  {:else if differs}
    <button type="button" class={link} onclick={() => onchoose(other)}>
      {other === own ? say('zone.show-mine', { city: cityOf(own) }) : say('zone.show', { city: cityOf(page.zone) })}
    </button>
  {/if}
</p>
