<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    hosts: Schemas['HostView'][];
    hours: Schemas['HoursView'][];
    zone: string;
    mayEdit: boolean;
    onedit: (host: Schemas['HostView']) => void;
    onchanged: () => void;
  }

  let { hosts, hours, zone, mayEdit, onedit, onchanged }: Props = $props();

  let adding = $state(false);
  let form = $state({ kind: 'room' as 'room' | 'thing', name: '', hoursId: '' });
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await attempt.run(async () => {
      await must(
        api.POST('/api/hosts', { body: { ...form, zone, hoursId: form.hoursId === '' ? null : form.hoursId } }),
      );
      adding = false;
      form = { kind: 'room', name: '', hoursId: '' };
      onchanged();
    });
  }

  async function retire(id: string): Promise<void> {
    await attempt.run(async () => {
      await must(api.DELETE('/api/hosts/{id}', { params: { path: { id } } }));
    });
    onchanged();
  }
</script>

<section aria-labelledby="places" class="mt-6">
  <header class="mb-1.5 flex flex-wrap items-center justify-between gap-3">
    <h2 id="places" class="text-lg">Rooms and things</h2>
    {#if mayEdit && !adding}<ActionButton onclick={() => (adding = true)}>Add a room or thing</ActionButton>{/if}
  </header>
  {#if problem}<div class="mb-2"><ProblemNote {problem} /></div>{/if}
  {#if adding}
    <form
      novalidate
      aria-label="Add a room or thing"
      class="mb-3 grid items-end gap-4 rounded-2xl border border-line bg-card p-5 md:grid-cols-[130px_1fr_1fr_auto]"
      onsubmit={(event) => void add(event)}
    >
      <Field label="What it is" id="place-kind" mend={mendOf(problem, 'kind')}
        ><Select
          id="place-kind"
          placeholder=""
          bind:value={form.kind}
          items={[
            { value: 'room', name: 'a room' },
            { value: 'thing', name: 'a thing' },
          ]}
        /></Field
      >
      <Field label="Name of the room or thing" id="place-name" mend={mendOf(problem, 'name')}
        ><Input id="place-name" bind:value={form.name} /></Field
      >
      <Field label="Its hours" id="place-hours" mend={mendOf(problem, 'hoursId')}
        ><Select
          id="place-hours"
          placeholder=""
          bind:value={form.hoursId}
          items={[{ value: '', name: 'always open' }, ...hours.map((one) => ({ value: one.id, name: one.name }))]}
        /></Field
      >
      <span class="flex gap-2"
        ><ActionButton kind="quiet" onclick={() => (adding = false)}>Cancel</ActionButton><ActionButton
          kind="main"
          type="submit">Add it</ActionButton
        ></span
      >
    </form>
  {/if}
  {#if hosts.length > 0}
    <ul class="overflow-hidden rounded-2xl border border-line bg-card">
      {#each hosts as host (host.id)}
        <li class="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line px-4 py-2.5 first:border-t-0">
          <span class="min-w-52 font-semibold">{host.name}</span>
          <span class="min-w-24 text-sm">{host.kind}</span>
          <span class="text-sm text-muted"
            >{hours.find((one) => one.id === host.hoursId)?.name ?? 'always open'}{host.dailyCap === null
              ? ''
              : `; at most ${host.dailyCap} a day`}{host.weeklyCap === null
              ? ''
              : `; at most ${host.weeklyCap} a week`}</span
          >
          {#if mayEdit}
            <span class="ml-auto flex gap-4 text-sm">
              <TextButton aria-label="Change {host.name}" class="min-h-8" onclick={() => onedit(host)}
                >Change</TextButton
              >
              <TextButton
                aria-label="Remove from team: {host.name}"
                class="min-h-8"
                onclick={() => void retire(host.id)}>Remove from team</TextButton
              >
            </span>
          {/if}
        </li>
      {/each}
    </ul>
  {:else if !adding}
    <p class="text-muted">None yet. A room or a thing is booked along with people, and never twice at once.</p>
  {/if}
</section>
