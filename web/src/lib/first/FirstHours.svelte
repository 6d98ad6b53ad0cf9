<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import WeekHours from '$lib/hours/WeekHours.svelte';
  import type { WeekdayKey } from '$lib/hours/week';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  let { hours, ondone }: { hours: Schemas['HoursView']; ondone: () => Promise<void> } = $props();

  // What is painted stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  let week = $state(structuredClone(hours.document.week));
  let unread = $state<WeekdayKey[]>([]);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  async function keep(): Promise<void> {
    await attempt.run(async () => {
      await must(
        api.PUT('/api/hours/{id}', {
          params: { path: { id: hours.id } },
          body: { version: hours.version, form: { name: hours.name, document: { ...hours.document, week } } },
        }),
      );
      await ondone();
    });
  }
</script>

{#if problem}<ProblemNote {problem} />{/if}
<p class="mb-2">When can you be booked in an ordinary week? Holidays and other dates come later, under “Hours”.</p>
<WeekHours
  bind:week
  bind:unread
  mendsOf={(day) =>
    Object.entries(problem?.errors ?? {})
      .filter(([field]) => field.includes(`week.${day}`))
      .flatMap(([, mends]) => mends)}
/>
<div class="mt-3">
  <ActionButton kind="main" disabled={unread.length > 0} onclick={() => void keep()}>Save these hours</ActionButton>
</div>
