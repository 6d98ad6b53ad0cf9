<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import ActingForNote from '$lib/acting/ActingForNote.svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';

  interface Props {
    host: Schemas['HostView'];
    hours: Schemas['HoursView'][];
    /** The reader's own time. */
    own: string | null;
    ondone: (effects: Schemas['PageEffect'][]) => void;
    onclose: () => void;
  }

  let { host, hours, own, ondone, onclose }: Props = $props();

  // The form is made once for the host.
  // svelte-ignore state_referenced_locally
  const form = $state({
    name: host.name,
    zone: host.zone,
    hoursId: host.hoursId ?? '',
    weight: host.weight,
    dailyCap: String(host.dailyCap ?? ''),
    weeklyCap: String(host.weeklyCap ?? ''),
  });
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  const isPerson = $derived(host.kind === 'person');
  // What is no number is sent as one that is refused, and not taken for "any number".
  const cap = (text: string | number): number | null =>
    String(text).trim() === '' ? null : Number.isFinite(Number(text)) ? Number(text) : 0;

  async function save(): Promise<void> {
    const body = {
      name: isPerson ? null : form.name,
      zone: isPerson ? null : form.zone,
      hoursId: form.hoursId === '' ? null : form.hoursId,
      weight: Number(form.weight),
      dailyCap: cap(form.dailyCap),
      weeklyCap: cap(form.weeklyCap),
    };
    await attempt.run(async () => {
      ondone((await must(api.PUT('/api/hosts/{id}', { params: { path: { id: host.id } }, body }))).effects);
    });
  }
</script>

<Dialog title={isPerson ? `Hours and caps of ${host.name}` : host.name} {onclose}>
  {#if host.mayOffer}<ActingForNote hosts={[host]} {own} />{/if}
  <div class="space-y-4">
    {#if problem}<ProblemNote {problem} />{/if}
    {#if !isPerson}
      <Field label="Name" id="host-name" mend={mendOf(problem, 'name')}
        ><Input id="host-name" bind:value={form.name} /></Field
      >
      <Field label="Time zone" id="host-zone" mend={mendOf(problem, 'zone')}
        ><ZoneSelect id="host-zone" bind:value={form.zone} /></Field
      >
    {/if}
    <Field
      label="Usual hours"
      id="host-hours"
      hint={host.mayOffer ? '' : 'They do not let you choose their hours'}
      mend={mendOf(problem, 'hoursId')}
    >
      <Select
        id="host-hours"
        placeholder=""
        disabled={!host.mayOffer}
        bind:value={form.hoursId}
        items={[{ value: '', name: 'always open' }, ...hours.map((one) => ({ value: one.id, name: one.name }))]}
      />
    </Field>
    <Field
      label="Weight in a pool"
      id="host-weight"
      hint="Twice the weight of another is twice the bookings"
      mend={mendOf(problem, 'weight')}
    >
      <Input id="host-weight" type="number" min={1} max={100} bind:value={form.weight} />
    </Field>
    <div class="grid grid-cols-2 gap-4">
      <Field label="Most a day" id="host-daily" hint="Empty for any number" mend={mendOf(problem, 'dailyCap')}
        ><Input id="host-daily" inputmode="numeric" bind:value={form.dailyCap} /></Field
      >
      <Field label="Most a week" id="host-weekly" hint="Empty for any number" mend={mendOf(problem, 'weeklyCap')}
        ><Input id="host-weekly" inputmode="numeric" bind:value={form.weeklyCap} /></Field
      >
    </div>
  </div>
  <div class="mt-4 flex justify-end gap-3">
    <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
    <ActionButton kind="main" onclick={() => void save()}>Save</ActionButton>
  </div>
</Dialog>
