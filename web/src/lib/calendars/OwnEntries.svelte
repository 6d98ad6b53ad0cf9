<script lang="ts">
  import { onMount } from 'svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { cityOf } from '$lib/time/clock';
  import { dateIn } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { blankOn, entryInWords, typedOf, type TypedEntry } from './entries';
  import OwnEntryForm from './OwnEntryForm.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    calendar: Schemas['CalendarView'];
    /** The host's. */
    zone: string;
    now: string;
    onchanged: () => void;
  }

  let { calendar, zone, now, onchanged }: Props = $props();

  let entries = $state.raw<Schemas['OwnEntryView'][] | undefined>(undefined);
  let editing = $state.raw<{ id: number | undefined; typed: TypedEntry } | undefined>(undefined);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  const path = $derived({ id: calendar.id });

  async function load(): Promise<void> {
    await attempt.run(async () => {
      entries = await must(api.GET('/api/calendars/{id}/entries', { params: { path } }));
    });
  }

  async function changed(): Promise<void> {
    editing = undefined;
    await load();
    onchanged();
  }

  async function remove(entry: number): Promise<void> {
    const gone = await attempt.run(() =>
      must(api.DELETE('/api/calendars/{id}/entries/{entry}', { params: { path: { ...path, entry } } })),
    );
    if (gone) await changed();
  }

  onMount(() => void load());
</script>

<section aria-label="Entries of {calendar.name}, {calendar.hostName}" class="mt-3 rounded-lg bg-lane px-3 py-2">
  {#if problem}<div class="mb-2"><ProblemNote {problem} /></div>{/if}
  {#if entries}
    {#if entries.length === 0 && !editing}<p class="text-sm text-muted">
        No entries yet. An entry blocks time that no other calendar knows of. Times are {calendar.hostName}’s own, in {cityOf(
          zone,
        )}.
      </p>{/if}
    <ul>
      {#each entries as { id, entry } (id)}
        <li class="flex flex-wrap items-baseline gap-x-4 py-1">
          <span class="font-semibold">{entry.title}</span><span class="text-sm">{entryInWords(entry)}</span>
          <span class="ml-auto flex gap-4 text-sm">
            <TextButton aria-label="Change {entry.title}" onclick={() => (editing = { id, typed: typedOf(entry) })}
              >Change</TextButton
            >
            <TextButton aria-label="Delete {entry.title}" onclick={() => void remove(id)}>Delete</TextButton>
          </span>
        </li>
      {/each}
    </ul>
    {#if editing}
      {#key editing}
        <OwnEntryForm
          calendarId={calendar.id}
          id={editing.id}
          typed={editing.typed}
          onsaved={() => void changed()}
          onclose={() => (editing = undefined)}
        />
      {/key}
    {:else}
      <ActionButton class="mt-1" onclick={() => (editing = { id: undefined, typed: blankOn(dateIn(now, zone)) })}
        >New entry</ActionButton
      >
    {/if}
  {/if}
</section>
