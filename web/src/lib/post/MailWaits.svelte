<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';

  /** Tells the team that guests are not mailed yet, and lets an owner end that. */
  let { me }: { me: Schemas['Me'] } = $props();

  let asked = $state(false);
  const attempt = new Attempt();

  async function ask(): Promise<void> {
    asked = await attempt.run(() => must(api.POST('/api/me/address-proof')));
  }
</script>

<div
  role="status"
  class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1 rounded-lg border-l-4 border-brick bg-brick-tint px-3 py-1.5 text-brick-text"
>
  <p class="min-w-0 flex-1 basis-80">
    {#if asked}
      A mail is on its way to {me.email}. Open the link in it, and the messages that wait go out.
    {:else if me.isOwner}
      Mail to guests waits until you show that {me.email} is your address.
    {:else}
      Mail to guests and colleagues waits until an owner of this workspace shows that their address is theirs.
    {/if}
    {#if attempt.problem}<strong>{attempt.problem.title}</strong> {attempt.problem.detail ?? ''}{/if}
  </p>
  {#if me.isOwner && !asked}
    <ActionButton disabled={attempt.busy} onclick={() => void ask()}>Send me a link</ActionButton>
  {/if}
</div>
