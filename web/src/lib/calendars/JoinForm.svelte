<script lang="ts">
  import { Fileupload, Input, Select } from 'flowbite-svelte';
  import ActingForNote from '$lib/acting/ActingForNote.svelte';
  import type { Schemas } from '$lib/api/client';
  import { mendOf, problemOf, type Problem } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { joinCalendar } from './upload';

  interface Props {
    hosts: Schemas['HostView'][];
    onjoined: () => void;
    onclose: () => void;
    /** The reader's own time; without it nobody is acted for. */
    own?: string | null;
    /** What the button says that joins nothing. */
    leave?: string;
  }

  let { hosts, onjoined, onclose, own, leave = 'Leave it' }: Props = $props();

  // svelte-ignore state_referenced_locally -- the first host is only where the choice starts
  let hostId = $state(hosts[0]?.id ?? '');
  let name = $state('');
  let files = $state<FileList | null>(null);
  let problem = $state.raw<Problem | undefined>(undefined);
  let busy = $state(false);
  const chosen = $derived(hosts.find((host) => host.id === hostId));

  async function join(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const file = files?.[0];
    if (!file) {
      problem = { status: 400, title: '', errors: { file: ['Choose a calendar file (.ics).'] } };
      return;
    }
    busy = true;
    try {
      await joinCalendar(hostId, name, file);
      onjoined();
    } catch (thrown) {
      problem = problemOf(thrown);
    } finally {
      busy = false;
    }
  }
</script>

<form novalidate aria-label="Join a calendar file" class="mb-4 grid gap-4 rounded-2xl border border-line bg-card p-5 md:grid-cols-3" onsubmit={(event) => void join(event)}>
  {#if chosen && own !== undefined}<div class="md:col-span-3"><ActingForNote hosts={[chosen]} {own} /></div>{/if}
  {#if problem && !problem.errors}<div class="md:col-span-3"><ProblemNote {problem} /></div>{/if}
  <Field label="Whose calendar" id="join-host" mend={mendOf(problem, 'hostId')}>
    <Select id="join-host" placeholder="" bind:value={hostId} items={hosts.map((host) => ({ value: host.id, name: host.name }))} />
  </Field>
  <Field label="Name among ourselves" id="join-name" hint="The file’s name, unless you write another" mend={mendOf(problem, 'name')}>
    <Input id="join-name" bind:value={name} />
  </Field>
  <Field label="iCalendar file" id="join-file" hint="An export ending in .ics, up to 5 MB" mend={mendOf(problem, 'file')}>
    <Fileupload id="join-file" accept=".ics,text/calendar" bind:files />
  </Field>
  <p class="text-sm text-muted md:col-span-2">Whole days and times without a zone are read in the host’s own time zone. Events marked free and cancelled ones are in nobody’s way.</p>
  <div class="flex justify-end gap-3">
    <ActionButton onclick={onclose}>{leave}</ActionButton>
    <ActionButton kind="main" type="submit" disabled={busy}>{busy ? 'Joining…' : 'Join'}</ActionButton>
  </div>
</form>
