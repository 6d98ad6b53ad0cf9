<script lang="ts">
  import { page } from '$app/state';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Doorway from '$lib/ui/Doorway.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  let proven = $state.raw<Schemas['ProvenAddress'] | undefined>(undefined);
  const attempt = new Attempt();

  // By a press, since programs that look at mail open the links in it.
  async function prove(): Promise<void> {
    const secret = page.params.secret ?? '';
    await attempt.run(async () => {
      proven = await must(api.POST('/api/address-proofs/{secret}', { params: { path: { secret } } }));
    });
  }
</script>

<svelte:head><title>Your address – Loose Lantern</title></svelte:head>

<Doorway title={proven ? 'Your address is proven' : 'Is this address yours?'}>
  {#if proven}
    <p role="status">
      {#if proven.waiting === 0}
        Mail to guests goes out from now on.
      {:else}
        Mail to guests goes out from now on, with {proven.waiting === 1
          ? 'one message that waited'
          : `${proven.waiting} messages that waited`}.
      {/if}
    </p>
    <p class="mt-6"><a class="underline underline-offset-4" href="/work/pages">Go to your workspace</a></p>
  {:else}
    <p class="mb-5">You got this link by mail. Confirm that you read mail there.</p>
    {#if attempt.problem}<div class="mb-4"><ProblemNote problem={attempt.problem} /></div>{/if}
    <ActionButton kind="main" class="min-h-11 w-full" disabled={attempt.busy} onclick={() => void prove()}
      >Yes, it is mine</ActionButton
    >
  {/if}
</Doorway>
