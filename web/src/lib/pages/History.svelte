<script lang="ts">
  import { api, type Schemas } from '$lib/api/client';
  import { must, problemOf, type Problem } from '$lib/api/problem';
  import { dateIn, dayMonth, timeOf } from '$lib/time/format';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { changedParts } from './differences';
  import type { PageForm } from './form';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    pageId: string;
    /** Whatever changes when something is published. */
    version: number;
    zone: string;
    mayEdit: boolean;
    onrestore: (form: PageForm, number: number) => void;
  }

  let { pageId, version, zone, mayEdit, onrestore }: Props = $props();

  const SHOWN = 6;
  let editions = $state.raw<Schemas['EditionView'][]>([]);
  let problem = $state.raw<Problem | undefined>(undefined);
  let all = $state(false);

  $effect(() => {
    void version;
    let isCurrent = true;
    must(api.GET('/api/pages/{id}/editions', { params: { path: { id: pageId } } })).then(
      (answer) => {
        if (isCurrent) [editions, problem] = [answer, undefined];
      },
      (thrown: unknown) => {
        if (isCurrent) problem = problemOf(thrown);
      },
    );
    return () => (isCurrent = false);
  });

  function whatChanged(at: number): string {
    const [edition, before] = [editions[at], editions[at + 1]];
    if (!edition || !before) return edition?.number === 1 ? 'published first' : '';
    const parts = changedParts(before.form, edition.form);
    return parts.length === 0 ? 'opened again' : parts.join(', ');
  }
</script>

{#if editions.length > 0 || problem}
  <section aria-labelledby="history" class="rounded-2xl border border-line bg-card p-4">
    <h2 id="history" class="mb-1 text-part">Published versions</h2>
    {#if problem}<ProblemNote {problem} />{/if}
    <ol class="text-sm">
      {#each all ? editions : editions.slice(0, SHOWN) as edition, at (edition.number)}
        <li class="grid grid-cols-[104px_1fr_auto] gap-x-3 border-t border-line py-1.5 first:border-t-0">
          <span class="text-muted">{dayMonth(dateIn(edition.at, zone))}, {timeOf(edition.at, zone)}</span>
          <span>{edition.by || 'Loose Lantern'}: {whatChanged(at)}</span>
          {#if mayEdit && at > 0}<TextButton
              aria-label="Restore the version of {dayMonth(dateIn(edition.at, zone))}, {timeOf(edition.at, zone)}"
              onclick={() => onrestore(edition.form, edition.number)}>restore</TextButton
            >{:else}<span class="text-muted">{at === 0 ? 'now' : ''}</span>{/if}
        </li>
      {/each}
    </ol>
    {#if editions.length > SHOWN && !all}<TextButton class="mt-1 min-h-7 text-sm" onclick={() => (all = true)}
        >All {editions.length}</TextButton
      >{/if}
  </section>
{/if}
