<script lang="ts">
  import { Checkbox, Select } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import Field from '$lib/ui/Field.svelte';
  import { TEAM, type Whose } from './owners';

  interface Props {
    hosts: Schemas['HostView'][];
    whose: Whose;
    mend: string | undefined;
    /** Whether a calendar can count for several hosts. */
    mayShare: boolean;
  }

  let { hosts, whose = $bindable(), mend, mayShare }: Props = $props();

  const choices = $derived([
    ...hosts.map((host) => ({ value: host.id, name: host.name })),
    ...(mayShare && hosts.length > 1 ? [{ value: TEAM, name: 'The whole team, or some of it' }] : []),
  ]);

  function choose(id: string): void {
    whose = {
      hostId: id,
      hostIds: id === TEAM ? hosts.filter((host) => host.kind === 'person').map((host) => host.id) : [],
    };
  }

  function toggle(id: string, on: boolean): void {
    whose = { ...whose, hostIds: on ? [...whose.hostIds, id] : whose.hostIds.filter((other) => other !== id) };
  }
</script>

<div>
  <Field label="Whose calendar" id="join-host" {mend}>
    <Select
      id="join-host"
      placeholder=""
      value={whose.hostId}
      onchange={(event: Event & { currentTarget: HTMLSelectElement }) => choose(event.currentTarget.value)}
      items={choices}
    />
  </Field>
  {#if whose.hostId === TEAM}
    <fieldset class="mt-2">
      <legend class="text-sm text-muted">It counts for</legend>
      <div class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        {#each hosts as host (host.id)}
          <Checkbox
            checked={whose.hostIds.includes(host.id)}
            onchange={(event: Event & { currentTarget: HTMLInputElement }) =>
              toggle(host.id, event.currentTarget.checked)}>{host.name}</Checkbox
          >
        {/each}
      </div>
    </fieldset>
  {/if}
</div>
