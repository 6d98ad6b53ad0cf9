<script lang="ts">
  import CallOff from '$lib/flagged/CallOff.svelte';
  import { askAnew } from '$lib/live/anew';
  import { counted } from '$lib/time/format';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  let calledOff = $state<number | undefined>(undefined);

  async function done(count: number): Promise<void> {
    calledOff = count;
    await askAnew();
  }
</script>

<svelte:head><title>Flagged bookings – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/bookings">Bookings</a></p>
<h1 class="text-page mb-1">Flagged bookings</h1>
<p class="mb-4 text-muted">
  What is to come and was flagged by a page’s screening. Tick whom to call off; each gets the letter.
</p>
{#if calledOff !== undefined}<p role="status" class="mb-4">
    {counted(calledOff, 'booking', 'bookings')} called off.
  </p>{/if}
{#if data.flagged.total === 0}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">No flagged bookings</h2>
    <p class="mt-1 text-muted">
      Nothing that is to come was flagged. What flags a booking is chosen at a page’s questions.
    </p>
  </div>
{:else}
  <CallOff answer={data.flagged} zone={data.me.zone} oncalledoff={(count) => void done(count)} />
{/if}
