<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import { counted, dateIn, dayMonth, timeOf } from '$lib/time/format';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { imports, zone }: { imports: Schemas['ImportRow'][]; zone: string } = $props();

  const attempt = new Attempt();

  async function undo(id: string): Promise<void> {
    await attempt.run(() => must(api.POST('/api/guests/imports/{id}/undo', { params: { path: { id } } })));
    await askAnew();
  }
</script>

{#if imports.length > 0}
  <section aria-labelledby="imports" class="mt-5">
    <h2 id="imports" class="mb-1.5 text-lg">Imports so far</h2>
    {#if attempt.problem}<div class="mb-2"><ProblemNote problem={attempt.problem} /></div>{/if}
    <ul class="rounded-2xl border border-line bg-card px-5 py-2">
      {#each imports as row (row.id)}
        <li class="flex flex-wrap items-baseline gap-x-4 border-t border-line py-2 first:border-t-0">
          <span class="font-semibold wrap-anywhere">{row.fileName}</span>
          <span class="text-muted"
            >{dayMonth(dateIn(row.at, zone))}, {timeOf(row.at, zone)}, {row.by}: {counted(
              row.made,
              'new guest',
              'new guests',
            )},
            {row.changed} changed{row.leftOut > 0 ? `, ${row.leftOut} left out` : ''}</span
          >
          <span class="ml-auto">
            {#if row.state === 'undone'}<span class="text-muted">undone</span>{:else}<TextButton
                class="min-h-8"
                aria-label="Undo import of {row.fileName}"
                disabled={attempt.busy}
                onclick={() => void undo(row.id)}>Undo import</TextButton
              >{/if}
          </span>
        </li>
      {/each}
    </ul>
  </section>
{/if}
