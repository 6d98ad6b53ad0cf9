<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { dateIn, dayMonth } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import RoleChoice from './RoleChoice.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    invitations: Schemas['InvitationView'][];
    zone: string;
    inviting: boolean;
    onchanged: () => void;
  }

  let { invitations, zone, inviting = $bindable(), onchanged }: Props = $props();

  const blank = (): Schemas['InvitationForm'] => ({
    name: '',
    email: '',
    roles: { isOwner: false, isCoordinator: false, isHost: true },
  });
  let form = $state(blank());
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  let copied = $state<string | undefined>(undefined);
  const linkOf = (invitation: Schemas['InvitationView']): string => location.origin + invitation.path;

  async function invite(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await attempt.run(async () => {
      await must(api.POST('/api/invitations', { body: { ...form, email: form.email.trim() } }));
      form = blank();
      inviting = false;
      onchanged();
    });
  }

  async function takeBack(id: string): Promise<void> {
    await attempt.run(async () => {
      await must(api.DELETE('/api/invitations/{id}', { params: { path: { id } } }));
    });
    onchanged();
  }

  async function copy(invitation: Schemas['InvitationView']): Promise<void> {
    await navigator.clipboard.writeText(linkOf(invitation));
    copied = invitation.id;
  }
</script>

{#if inviting}
  <form
    novalidate
    aria-label="Invite someone"
    class="mb-4 grid gap-4 rounded-2xl border border-line bg-card p-5 md:grid-cols-2"
    onsubmit={(event) => void invite(event)}
  >
    {#if problem}<div class="md:col-span-2"><ProblemNote {problem} /></div>{/if}
    <Field label="Name" id="invite-name" mend={mendOf(problem, 'name')}
      ><Input id="invite-name" bind:value={form.name} /></Field
    >
    <Field label="Email, which they will sign in with" id="invite-email" mend={mendOf(problem, 'email')}
      ><Input id="invite-email" type="email" bind:value={form.email} /></Field
    >
    <div class="md:col-span-2"><RoleChoice bind:roles={form.roles} mend={mendOf(problem, 'roles')} /></div>
    <p class="text-sm text-muted">They join with a link you send them. It works once, within two weeks.</p>
    <div class="flex justify-end gap-3">
      <ActionButton kind="quiet" onclick={() => (inviting = false)}>Cancel</ActionButton>
      <ActionButton kind="main" type="submit">Make the link</ActionButton>
    </div>
  </form>
{/if}
{#if invitations.length > 0}
  <section aria-labelledby="invitations" class="mb-5">
    <h2 id="invitations" class="mb-1.5 text-lg">Invited, not joined yet</h2>
    <ul class="overflow-hidden rounded-2xl border border-line bg-card">
      {#each invitations as invitation (invitation.id)}
        <li class="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line px-4 py-2.5 first:border-t-0">
          <span class="font-semibold">{invitation.name}</span>
          <span class="text-sm text-muted"
            >{invitation.email}, until {dayMonth(dateIn(invitation.expiresAt, zone))}</span
          >
          <input
            readonly
            aria-label="Link for {invitation.name}"
            value={linkOf(invitation)}
            class="min-w-40 flex-1 rounded-lg border border-line bg-paper px-2 py-1 text-sm"
            onfocus={(event) => event.currentTarget.select()}
          />
          <TextButton
            aria-label="{copied === invitation.id ? 'Copied' : 'Copy'} the link for {invitation.name}"
            class="min-h-8 text-sm"
            onclick={() => void copy(invitation)}>{copied === invitation.id ? 'Copied' : 'Copy'}</TextButton
          >
          <TextButton
            aria-label="Withdraw the invitation of {invitation.name}"
            class="min-h-8 text-sm"
            onclick={() => void takeBack(invitation.id)}>Take back</TextButton
          >
        </li>
      {/each}
    </ul>
  </section>
{/if}
