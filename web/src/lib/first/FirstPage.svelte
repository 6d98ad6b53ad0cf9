<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { placeKinds } from '$lib/guest/place';
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
  // svelte-ignore state_referenced_locally
  let placeKind = $state<Schemas['PlaceKind']>(usual.placeKind ?? 'inPerson');
  // svelte-ignore state_referenced_locally
  let place = $state(usual.place ?? '');
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  let made = $state.raw<Schemas['PageView'] | undefined>(undefined);
  const address = $derived(addressFrom(title));

  async function publish(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const form = newForm(me.workspaceZone, desk.id, me.hostId ?? '', usual);
    Object.assign(form, { title, address, placeKind, place });
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
  <p>A page offers one kind of appointment in your open hours. You can change everything later.</p>
  <Field
    label="What can be booked, as guests read it"
    id="first-title"
    hint={address === '' ? 'A first talk, say' : `/${desk.address}/${address}`}
    mend={mendOf(problem, 'title') ?? mendOf(problem, 'address')}
  >
    <Input id="first-title" bind:value={title} />
  </Field>
  <div class="grid gap-4 md:grid-cols-[120px_160px_1fr]">
    <Field label="Minutes" id="first-minutes" mend={mendOf(problem, 'times.durations[0]')}
      ><Input id="first-minutes" type="number" min={5} bind:value={minutes} /></Field
    >
    <Field label="How you meet" id="first-place-kind" mend={mendOf(problem, 'placeKind')}
      ><Select
        id="first-place-kind"
        placeholder=""
        bind:value={placeKind}
        items={placeKinds.map((kind) => ({ value: kind.value, name: kind.text }))}
      /></Field
    >
    <Field
      label={{
        inPerson: 'Where',
        phone: 'What to say about the call',
        video: 'Address of the call',
        ownWords: 'Where, or how',
      }[placeKind]}
      id="first-place"
      hint={placeKind === 'video' ? 'Empty: a room is made for each booking' : ''}
      mend={mendOf(problem, 'place')}><Input id="first-place" bind:value={place} /></Field
    >
  </div>
  <ActionButton kind="main" type="submit">Publish the page</ActionButton>
</form>
