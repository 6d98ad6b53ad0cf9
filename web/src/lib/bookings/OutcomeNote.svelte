<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { row, mayChange }: { row: Schemas['BookingRow']; mayChange: boolean } = $props();

  const noting = new Attempt();
  const who = $derived(row.isAmongOurselves ? 'everybody' : row.guestName);

  async function note(outcome: Schemas['BookingOutcome']): Promise<void> {
    await noting.run(() =>
      must(api.PUT('/api/bookings/{id}/outcome', { params: { path: { id: row.id } }, body: { outcome } })),
    );
    await askAnew();
  }
</script>

<!-- Whether the guest came; they hear nothing of it. -->
<div class="mt-3 flex flex-wrap items-center gap-3">
  {#if row.outcome === 'none'}
    {#if mayChange}
      <span>Did {who} come?</span>
      <ActionButton disabled={noting.busy} onclick={() => void note('happened')}>Came</ActionButton>
      <ActionButton disabled={noting.busy} onclick={() => void note('missed')}>Did not come</ActionButton>
    {/if}
  {:else}
    <strong class={row.outcome === 'missed' ? 'text-brick' : 'text-sea-text'}
      >{row.outcome === 'missed' ? 'Missed' : 'Happened'}</strong
    >
    {#if mayChange}<TextButton class="min-h-6 text-fine" disabled={noting.busy} onclick={() => void note('none')}
        >Undo</TextButton
      >{/if}
  {/if}
</div>
{#if noting.problem}<div class="mt-2"><ProblemNote problem={noting.problem} /></div>{/if}
