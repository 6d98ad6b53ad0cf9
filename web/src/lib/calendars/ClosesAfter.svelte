<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { faultOf, must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import ActionButton from '$lib/ui/ActionButton.svelte';

  let { me }: { me: Schemas['Me'] } = $props();

  // Only where the field starts.
  // svelte-ignore state_referenced_locally
  let hours = $state(me.closesAfterHours);
  const attempt = new Attempt();

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const body = { name: me.workspace, zone: me.workspaceZone, closesAfterHours: Number(hours) };
    if (await attempt.run(() => must(api.PUT('/api/workspace', { body })))) await askAnew();
  }
</script>

<section aria-labelledby="closes-after" class="mt-6 rounded-2xl border border-line bg-card p-5">
  <h2 id="closes-after" class="text-lg">When a calendar can’t be reached</h2>
  {#if me.isOwner}
    <form novalidate class="mt-2 flex flex-wrap items-center gap-2" onsubmit={(event) => void save(event)}>
      its last known events count for
      <span class="w-20"
        ><Input
          type="number"
          min="1"
          max="720"
          aria-label="Hours for which the last known state counts"
          class="py-1.5"
          bind:value={hours}
        /></span
      >
      hours; then its openings close until it answers again.
      {#if Number(hours) !== me.closesAfterHours}<ActionButton type="submit">Save</ActionButton>{/if}
    </form>
    {#if attempt.problem}<p class="mt-1 text-sm text-brick" role="alert">
        {faultOf(attempt.problem, 'closesAfterHours')}
      </p>{/if}
  {:else}
    <p class="mt-1">
      Its last known events count for {me.closesAfterHours} hours; then its openings close until it answers again. Owners
      can change that.
    </p>
  {/if}
</section>
