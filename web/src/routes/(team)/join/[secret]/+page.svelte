<script lang="ts">
  import { goto } from '$app/navigation';
  import { Checkbox, Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, forgetToken } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { ownZone } from '$lib/time/clock';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Doorway from '$lib/ui/Doorway.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  // The invitation is read once.
  // svelte-ignore state_referenced_locally
  const form = $state({ name: data.invitation.name, password: '', zone: ownZone(), letInviter: true });
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  const roles = $derived(
    [
      data.invitation.roles.isOwner ? 'owner' : '',
      data.invitation.roles.isCoordinator ? 'coordinator' : '',
      data.invitation.roles.isHost ? 'host' : '',
    ]
      .filter((role) => role !== '')
      .join(', '),
  );

  async function join(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    forgetToken();
    await attempt.run(async () => {
      await must(api.POST('/api/join/{secret}', { params: { path: { secret: data.secret } }, body: form }));
      forgetToken();
      await goto(data.invitation.roles.isHost ? '/work/hours' : '/work/pages', { invalidateAll: true });
    });
  }
</script>

<svelte:head><title>Join {data.invitation.workspace} – Loose Lantern</title></svelte:head>

<Doorway title="Join {data.invitation.workspace}">
  <p class="mb-5">{data.invitation.by} invites you, as {roles}. You will sign in with {data.invitation.email}.</p>
  <form class="space-y-4" novalidate onsubmit={(event) => void join(event)}>
    {#if problem}<ProblemNote {problem} />{/if}
    <Field label="Your name" id="name" mend={mendOf(problem, 'name')}
      ><Input id="name" autocomplete="name" bind:value={form.name} class="min-h-11" /></Field
    >
    <Field label="Your time zone" id="zone" mend={mendOf(problem, 'zone')}
      ><ZoneSelect id="zone" bind:value={form.zone} box="min-h-11" /></Field
    >
    <Field
      label="Password"
      id="password"
      hint="10 characters or more that nobody would guess"
      mend={mendOf(problem, 'password')}
      ><Input
        id="password"
        type="password"
        autocomplete="new-password"
        bind:value={form.password}
        class="min-h-11"
      /></Field
    >
    {#if data.invitation.roles.isHost}
      <Checkbox bind:checked={form.letInviter} class="min-h-11"
        >{data.invitation.by} may act for me: offer and book my time, move my bookings, see what my events are called</Checkbox
      >
    {/if}
    <ActionButton kind="main" type="submit" disabled={attempt.busy} class="min-h-11 w-full"
      >{attempt.busy ? 'Joining…' : 'Join'}</ActionButton
    >
  </form>
</Doorway>
