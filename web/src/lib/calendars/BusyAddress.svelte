<script lang="ts">
  import { onMount } from 'svelte';
  import { api } from '$lib/api/client';
  import { must, problemOf, type Problem } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  let path = $state<string | null | undefined>(undefined);
  let problem = $state.raw<Problem | undefined>(undefined);
  let copied = $state(false);
  const link = $derived(path ? location.origin + path : '');

  async function attempt(doing: () => Promise<string | null>): Promise<void> {
    try {
      path = await doing();
      problem = undefined;
      copied = false;
    } catch (thrown) {
      problem = problemOf(thrown);
    }
  }

  onMount(() => void attempt(async () => (await must(api.GET('/api/me/busy-times'))).path));

  async function stop(): Promise<null> {
    await must(api.DELETE('/api/me/busy-times'));
    return null;
  }

  async function copy(): Promise<void> {
    await navigator.clipboard.writeText(link);
    copied = true;
  }
</script>

<section aria-labelledby="busy-address" class="mt-6 rounded-2xl border border-line bg-card p-5">
  <h2 id="busy-address" class="text-lg">Your busy times for other programs</h2>
  <p class="mt-1 mb-3 text-muted">A secret address tells when you are busy in the next 60 days, by your calendars that are asked and by bookings, and never with what. Any program that reads iCalendar free and busy times can ask it.</p>
  {#if problem}<div class="mb-2"><ProblemNote {problem} /></div>{/if}
  {#if path}
    <div class="flex flex-wrap items-center gap-3">
      <input readonly aria-label="Address of your busy times" value={link} class="min-w-60 flex-1 rounded-lg border border-line bg-paper px-2 py-1.5 text-sm" onfocus={(event) => event.currentTarget.select()} />
      <ActionButton onclick={() => void copy()}>{copied ? 'Copied' : 'Copy'}</ActionButton>
      <ActionButton onclick={() => void attempt(async () => (await must(api.POST('/api/me/busy-times'))).path)}>Make a new one</ActionButton>
      <ActionButton kind="quiet" onclick={() => void attempt(stop)}>Tell no more</ActionButton>
    </div>
  {:else if path === null}
    <ActionButton onclick={() => void attempt(async () => (await must(api.POST('/api/me/busy-times'))).path)}>Make an address</ActionButton>
  {/if}
</section>
