<script lang="ts">
  import { Select } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { dateIn, longDate, timeOf } from '$lib/time/format';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  interface Clash {
    sessionId: string;
    start: string;
    page: string;
    guests: string[];
    why: string;
  }

  interface Props {
    person: Schemas['PersonView'];
    hosts: Schemas['HostView'][];
    zone: string;
    ondone: () => void;
    onclose: () => void;
  }

  let { person, hosts, zone, ondone, onclose }: Props = $props();

  let heir = $state('');
  let others = $state<Record<string, string>>({});
  let clashes = $state.raw<Clash[]>([]);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  const candidates = $derived(
    hosts.filter((host) => host.id !== person.hostId).map((host) => ({ value: host.id, name: host.name })),
  );

  async function leave(): Promise<void> {
    const left = await attempt.run(async () => {
      const sessions = Object.fromEntries(Object.entries(others).filter(([, host]) => host !== ''));
      await must(
        api.POST('/api/people/{id}/leave', {
          params: { path: { id: person.id } },
          body: { toHostId: heir === '' ? null : heir, sessions },
        }),
      );
    });
    if (left) ondone();
    else {
      // Those already given to somebody stay in view, so that the choice can still be changed.
      const met = (attempt.problem?.['clashes'] as Clash[] | undefined) ?? [];
      clashes = [
        ...clashes.filter(
          (known) => others[known.sessionId] && !met.some((clash) => clash.sessionId === known.sessionId),
        ),
        ...met,
      ];
    }
  }
</script>

<Dialog title="Remove {person.name} from the team?" size="md" {onclose}>
  <p>They are signed out everywhere and can’t sign in again. Nobody acts for them any longer. This can’t be undone.</p>
  <div class="mt-4 space-y-4">
    {#if problem}<ProblemNote {problem} />{/if}
    {#if person.hostId}
      <Field label="Who takes over their seats on pages and their bookings to come" id="heir">
        <Select id="heir" placeholder="" bind:value={heir} items={[{ value: '', name: 'nobody' }, ...candidates]} />
      </Field>
    {/if}
    {#each clashes as clash (clash.sessionId)}
      <Field
        label="{longDate(dateIn(clash.start, zone))}, {timeOf(clash.start, zone)}, {clash.page}, {clash.guests.join(
          ', ',
        )}"
        id="clash-{clash.sessionId}"
        hint={clash.why}
      >
        <Select
          id="clash-{clash.sessionId}"
          placeholder=""
          bind:value={() => others[clash.sessionId] ?? '', (host) => (others[clash.sessionId] = host)}
          items={[{ value: '', name: 'choose who' }, ...candidates]}
        />
      </Field>
    {/each}
  </div>
  <div class="mt-4 flex justify-end gap-3">
    <ActionButton onclick={onclose}>Cancel</ActionButton>
    <ActionButton kind="main" disabled={attempt.busy} onclick={() => void leave()}>Remove from team</ActionButton>
  </div>
</Dialog>
