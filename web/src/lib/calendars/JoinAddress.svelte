<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { ownersOf, type Whose } from './owners';
  import WhoseCalendar from './WhoseCalendar.svelte';

  interface Props {
    hosts: Schemas['HostView'][];
    whose: Whose;
    mayShare: boolean;
    onjoined: () => void;
    onclose: () => void;
    leave: string;
  }

  let { hosts, whose = $bindable(), mayShare, onjoined, onclose, leave }: Props = $props();

  let address = $state('');
  let name = $state('');
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  async function join(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const body = { for: ownersOf(whose), address, name: name.trim() || null };
    if (await attempt.run(() => must(api.POST('/api/calendars/address', { body })))) onjoined();
  }
</script>

<form
  novalidate
  aria-label="Join a calendar by its address"
  class="grid gap-4 md:grid-cols-3"
  onsubmit={(event) => void join(event)}
>
  {#if problem}<div class="md:col-span-3"><ProblemNote {problem} /></div>{/if}
  <WhoseCalendar {hosts} bind:whose {mayShare} mend={mendOf(problem, 'for.hostId') ?? mendOf(problem, 'for.hostIds')} />
  <Field
    label="Address"
    id="join-address"
    hint="Begins with https:// or webcal://; it is kept encrypted and not shown again"
    mend={mendOf(problem, 'address')}
  >
    <Input id="join-address" inputmode="url" autocomplete="off" bind:value={address} />
  </Field>
  <Field
    label="Internal name"
    id="join-name"
    hint="The calendar’s own name, unless you enter another"
    mend={mendOf(problem, 'name')}
  >
    <Input id="join-name" bind:value={name} />
  </Field>
  <p class="text-sm text-muted md:col-span-2">
    We fetch it as often as its publisher asks, or else twice a minute. Nothing can be written to it.
  </p>
  <div class="flex justify-end gap-3">
    <ActionButton onclick={onclose}>{leave}</ActionButton>
    <ActionButton kind="main" type="submit" disabled={attempt.busy}>{attempt.busy ? 'Looking…' : 'Join'}</ActionButton>
  </div>
</form>
