<script lang="ts">
  import { Fileupload, Input } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { mendOf } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { ownersOf, type Whose } from './owners';
  import { joinFile } from './upload';
  import WhoseCalendar from './WhoseCalendar.svelte';

  interface Props {
    hosts: Schemas['HostView'][];
    whose: Whose;
    mayShare: boolean;
    onjoined: () => void;
    onclose: () => void;
    /** What the button says that joins nothing. */
    leave: string;
  }

  let { hosts, whose = $bindable(), mayShare, onjoined, onclose, leave }: Props = $props();

  const MOST_BYTES = 5 * 1024 * 1024;
  let name = $state('');
  let files = $state<FileList | null>(null);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  async function join(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const file = files?.[0];
    if (!file) attempt.refuse({ file: ['Choose a calendar file (.ics).'] });
    // One that is far too large is not even sent.
    else if (file.size > MOST_BYTES) attempt.refuse({ file: ['The file is over 5 MB; export a shorter run of time.'] });
    else if (await attempt.run(() => joinFile(ownersOf(whose), name, file))) onjoined();
  }
</script>

<form
  novalidate
  aria-label="Join a calendar file"
  class="grid gap-4 md:grid-cols-3"
  onsubmit={(event) => void join(event)}
>
  {#if problem}<div class="md:col-span-3"><ProblemNote {problem} /></div>{/if}
  <WhoseCalendar {hosts} bind:whose {mayShare} mend={mendOf(problem, 'hostId') ?? mendOf(problem, 'hostIds')} />
  <Field
    label="Internal name"
    id="join-name"
    hint="The file’s name, unless you enter another"
    mend={mendOf(problem, 'name')}
  >
    <Input id="join-name" bind:value={name} />
  </Field>
  <Field
    label="iCalendar file"
    id="join-file"
    hint="An export ending in .ics, up to 5 MB"
    mend={mendOf(problem, 'file')}
  >
    <Fileupload id="join-file" accept=".ics,text/calendar" bind:files />
  </Field>
  <p class="text-sm text-muted md:col-span-2">
    Whole days and times without a zone are read in the host’s own time zone. Events marked free and cancelled ones are
    in nobody’s way. A file stays as it is until you replace it.
  </p>
  <div class="flex justify-end gap-3">
    <ActionButton onclick={onclose}>{leave}</ActionButton>
    <ActionButton kind="main" type="submit" disabled={attempt.busy}>{attempt.busy ? 'Joining…' : 'Join'}</ActionButton>
  </div>
</form>
