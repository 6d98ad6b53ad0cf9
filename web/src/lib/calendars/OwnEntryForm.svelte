<script lang="ts">
  import { Checkbox, Input, Select } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { entryOf, type TypedEntry } from './entries';

  interface Props {
    calendarId: string;
    /** Of the entry that is changed; undefined for a new one. */
    id: number | undefined;
    typed: TypedEntry;
    onsaved: () => void;
    onclose: () => void;
  }

  let { calendarId, id, typed, onsaved, onclose }: Props = $props();

  // Only where the form starts.
  // svelte-ignore state_referenced_locally
  const form = $state({ ...typed });
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  const field = (name: string): string => `entry-${name}`;

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const faults: Record<string, string[]> = {};
    if (form.from === '') faults.start = ['Choose a date.'];
    if (!form.wholeDay && (form.fromTime === '' || form.toTime === ''))
      faults.end = ['Choose when it starts and ends.'];
    if (Object.keys(faults).length > 0) {
      attempt.refuse(faults);
      return;
    }
    const body = entryOf($state.snapshot(form));
    const done = await attempt.run(() =>
      id === undefined
        ? must(api.POST('/api/calendars/{id}/entries', { params: { path: { id: calendarId } }, body }))
        : must(
            api.PUT('/api/calendars/{id}/entries/{entry}', { params: { path: { id: calendarId, entry: id } }, body }),
          ),
    );
    if (done) onsaved();
  }
</script>

<form
  novalidate
  aria-label={id === undefined ? 'New entry' : 'Change the entry'}
  class="mt-2 grid items-start gap-3 md:grid-cols-6"
  onsubmit={(event) => void save(event)}
>
  {#if problem}<div class="md:col-span-6"><ProblemNote {problem} /></div>{/if}
  <Field label="What it is" id={field('title')} class="md:col-span-2" mend={mendOf(problem, 'title')}
    ><Input id={field('title')} bind:value={form.title} /></Field
  >
  <Field label="From" id={field('from')} mend={mendOf(problem, 'start')}
    ><Input id={field('from')} type="date" bind:value={form.from} /></Field
  >
  {#if !form.wholeDay}<Field label="at" id={field('from-time')}
      ><Input id={field('from-time')} type="time" bind:value={form.fromTime} /></Field
    >{/if}
  <Field label={form.wholeDay ? 'To, the whole day' : 'To'} id={field('to')} mend={mendOf(problem, 'end')}
    ><Input id={field('to')} type="date" bind:value={form.to} /></Field
  >
  {#if !form.wholeDay}<Field label="until" id={field('to-time')}
      ><Input id={field('to-time')} type="time" bind:value={form.toTime} /></Field
    >{/if}
  <div class="flex flex-wrap items-end gap-4 md:col-span-6">
    <Checkbox bind:checked={form.wholeDay}>whole days</Checkbox>
    <Field label="Shows as" id={field('shows')}>
      <Select
        id={field('shows')}
        placeholder=""
        class="w-52"
        bind:value={form.shows}
        items={[
          { value: 'busy', name: 'busy' },
          { value: 'tentative', name: 'tentative' },
          { value: 'free', name: 'free' },
        ]}
      />
    </Field>
    <Field label="Comes" id={field('repeats')}>
      <Select
        id={field('repeats')}
        placeholder=""
        class="w-44"
        bind:value={form.repeats}
        items={[
          { value: 'once', name: 'once' },
          { value: 'daily', name: 'every day' },
          { value: 'weekly', name: 'every week' },
          { value: 'monthly', name: 'every month' },
        ]}
      />
    </Field>
    {#if form.repeats !== 'once'}<Field label="Until, if it ends" id={field('until')} mend={mendOf(problem, 'until')}
        ><Input id={field('until')} type="date" bind:value={form.until} /></Field
      >{/if}
    <span class="ml-auto flex gap-3">
      <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
      <ActionButton kind="main" type="submit" disabled={attempt.busy}
        >{id === undefined ? 'Add the entry' : 'Save'}</ActionButton
      >
    </span>
  </div>
</form>
