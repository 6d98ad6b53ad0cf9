<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { dateIn, dayMonth, timeOf } from '$lib/time/format';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { signIns, zone, onchanged }: { signIns: Schemas['SignInView'][]; zone: string; onchanged: () => void } =
    $props();

  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  const at = (instant: string): string => `${dayMonth(dateIn(instant, zone))}, ${timeOf(instant, zone)}`;

  async function end(id: string): Promise<void> {
    await attempt.run(async () => {
      await must(api.DELETE('/api/me/sign-ins/{id}', { params: { path: { id } } }));
    });
    onchanged();
  }
</script>

<section aria-labelledby="sign-ins" class="rounded-2xl border border-line bg-card p-5">
  <h2 id="sign-ins" class="text-lg">Where you are signed in</h2>
  {#if problem}<ProblemNote {problem} />{/if}
  <ul>
    {#each signIns as signIn (signIn.id)}
      <li class="flex flex-wrap items-baseline gap-x-4 border-t border-line py-2 first:border-t-0">
        <span class="font-semibold">{signIn.device}</span>
        <span class="text-sm text-muted"
          >from {signIn.networkAddress === '' ? 'an unknown place' : signIn.networkAddress}, since {at(signIn.since)},
          last seen {at(signIn.seenAt)}</span
        >
        {#if signIn.here}<span class="ml-auto text-sm text-sea-text">here</span>
        {:else}<TextButton class="ml-auto min-h-8 text-sm" onclick={() => void end(signIn.id)}
            >Sign out there</TextButton
          >{/if}
      </li>
    {/each}
  </ul>
</section>
