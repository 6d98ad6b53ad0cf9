<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { dateIn, longDate, timeOf } from '$lib/time/format';
  import TextButton from '$lib/ui/TextButton.svelte';

  /** What a guest would have got, had this been for real. */
  let { tried, zone, onclose }: { tried: Schemas['TriedBooking']; zone: string; onclose: () => void } = $props();
</script>

<section aria-labelledby="tried" class="mt-4 rounded-2xl border border-line-strong bg-card p-5" role="status">
  <h2 id="tried" class="text-xl">A guest would now have this time</h2>
  <p class="mt-1">
    {longDate(dateIn(tried.start, zone))}, {timeOf(tried.start, zone)} – {timeOf(tried.end, zone)}. Nothing was reserved
    and nobody got a mail.
  </p>
  {#if tried.words}
    <h3 class="mt-3 text-base">They would see</h3>
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- made safe by the server -->
    <div class="prose-guest mt-1">{@html tried.words}</div>
  {/if}
  {#if tried.goTo}<p class="mt-3">
      They would be redirected to <strong class="wrap-anywhere">{tried.goTo}</strong>.
    </p>{/if}
  {#each tried.flags as flag (flag)}<p class="mt-3">Your team would be told: {flag}</p>{/each}
  <TextButton class="mt-2 min-h-11" onclick={onclose}>Try another</TextButton>
</section>
