<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { addressFrom } from '$lib/pages/address';
  import { newForm } from '$lib/pages/form';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  interface Props {
    me: Schemas['Me'];
    desk: Schemas['DeskView'];
    usual: Schemas['UsualSettings'];
    ondone: () => Promise<void>;
  }

  let { me, desk, usual, ondone }: Props = $props();

  let title = $state('');
  // svelte-ignore state_referenced_locally
  let minutes = $state(usual.duration ?? 30);
  let place = $state('');
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  let made = $state.raw<Schemas['PageView'] | undefined>(undefined);
  const address = $derived(addressFrom(title));

  async function publish(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const form = newForm(me.workspaceZone, desk.id, me.hostId ?? '', usual);
    Object.assign(form, { title, address, place });
    // It follows the hours that were just set.
    Object.assign(form.times, { durations: [minutes], hoursMode: 'hosts', hours: null });
    await attempt.run(async () => {
      made ??= await must(api.POST('/api/pages', { body: form }));
      await must(
        api.POST('/api/pages/{id}/publish', { params: { path: { id: made.id } }, body: { version: made.version } }),
      );
      await ondone();
    });
  }
</script>

<form novalidate class="space-y-3" onsubmit={(event) => void publish(event)}>
  {#if problem}<ProblemNote {problem} />{/if}
  <p>A page offers one kind of appointment in your open hours. All its rules can be changed later.</p>
  <Field
    label="What can be booked, as guests read it"
    id="first-title"
    hint={address === '' ? 'A first talk, say' : `/${desk.address}/${address}`}
    mend={mendOf(problem, 'title') ?? mendOf(problem, 'address')}
  >
    <Input id="first-title" bind:value={title} />
  </Field>
  <div class="grid gap-4 md:grid-cols-[120px_1fr]">
    <Field label="Minutes" id="first-minutes" mend={mendOf(problem, 'times.durations[0]')}
      ><Input id="first-minutes" type="number" min={5} bind:value={minutes} /></Field
    >
    <Field label="Where, or how" id="first-place" mend={mendOf(problem, 'place')}
      ><Input id="first-place" bind:value={place} /></Field
    >
  </div>
  <ActionButton kind="main" type="submit">Publish the page</ActionButton>
</form>
