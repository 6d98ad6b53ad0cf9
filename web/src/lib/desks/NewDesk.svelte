<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { addressFrom } from '$lib/pages/address';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  let { hosts, onmade, onclose }: { hosts: Schemas['HostView'][]; onmade: () => void; onclose: () => void } = $props();

  let name = $state('');
  let address = $state('');
  let hostId = $state('');
  let isTyped = $state(false);
  const attempt = new Attempt();

  async function open(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (
      await attempt.run(() =>
        must(api.POST('/api/desks', { body: { name, address, hostId: hostId === '' ? null : hostId } })),
      )
    )
      onmade();
  }
</script>

<Dialog title="A new desk" {onclose}>
  <form novalidate class="space-y-4" onsubmit={(event) => void open(event)}>
    {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
    <Field label="Name, as guests read it" id="new-desk-name" mend={mendOf(attempt.problem, 'name')}>
      <Input
        id="new-desk-name"
        bind:value={
          () => name,
          (next) => {
            name = next ?? '';
            if (!isTyped) address = addressFrom(name);
          }
        }
      />
    </Field>
    <Field
      label="Address"
      id="new-desk-address"
      hint="It can’t be changed later."
      mend={mendOf(attempt.problem, 'address')}
    >
      <Input id="new-desk-address" bind:value={() => address, (next) => ([address, isTyped] = [next ?? '', true])} />
    </Field>
    <Field
      label="Whose desk"
      id="new-desk-host"
      hint="A person’s desk lists every page on which they have a seat."
      mend={mendOf(attempt.problem, 'hostId')}
    >
      <Select
        id="new-desk-host"
        placeholder=""
        bind:value={hostId}
        items={[
          { value: '', name: 'no person: for pages of its own' },
          ...hosts.map((host) => ({ value: host.id, name: host.name })),
        ]}
      />
    </Field>
    <div class="flex justify-end gap-3">
      <ActionButton onclick={onclose}>Cancel</ActionButton><ActionButton
        kind="main"
        type="submit"
        disabled={attempt.busy}>Open the desk</ActionButton
      >
    </div>
  </form>
</Dialog>
