<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';

  interface Props {
    deskId: string;
    proof: Schemas['HostNameProof'];
    onchanged: () => void;
  }

  let { deskId, proof, onchanged }: Props = $props();

  const attempt = new Attempt();

  async function look(): Promise<void> {
    const path = { id: deskId };
    if (await attempt.run(() => must(api.POST('/api/desks/{id}/host-name-proof', { params: { path } })))) onchanged();
  }
</script>

{#if proof.since}
  <p class="mt-1 text-sm text-sea-text">✓ Proven: the desk answers there.</p>
{:else}
  <div class="mt-2 rounded-lg bg-lane px-3 py-2 text-sm">
    <p>The desk does not answer there yet. Add a TXT record where the host name’s records are kept:</p>
    <dl class="mt-1 grid grid-cols-[auto_minmax(0,1fr)] gap-x-3">
      <dt class="text-muted">Name</dt>
      <dd class="font-mono wrap-anywhere">{proof.record}</dd>
      <dt class="text-muted">Text</dt>
      <dd class="font-mono wrap-anywhere">{proof.text}</dd>
    </dl>
    {#if attempt.problem}<p class="mt-1 text-brick" role="alert">
        {attempt.problem.title}
        {attempt.problem.detail ?? ''}
      </p>{/if}
    <ActionButton class="mt-2" disabled={attempt.busy} onclick={() => void look()}
      >{attempt.busy ? 'Looking…' : 'Look for it'}</ActionButton
    >
  </div>
{/if}
