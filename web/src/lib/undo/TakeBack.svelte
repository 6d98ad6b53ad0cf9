<script lang="ts">
  import { onMount } from 'svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, onUndoable, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import { ServerClock } from '$lib/time/clock';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { undone } from './undone.svelte';
  import { left, mailOf, said } from './words';

  /** Says what was just done, and takes it back as long as its mail waits. */
  let { now }: { now: string } = $props();

  const clock = $derived(new ServerClock(now));
  let latest = $state.raw<Schemas['Undoable'] | undefined>(undefined);
  let done = $state(false);
  let at = $state(0);
  const attempt = new Attempt();
  const time = $derived(latest && left(latest.until, at));

  async function look(): Promise<void> {
    const acts = await must(api.GET('/api/undo')).catch(() => undefined);
    if (acts === undefined) return;
    [latest] = acts;
    at = clock.now();
    done = false;
    attempt.problem = undefined;
  }

  onMount(() => {
    const unwatch = onUndoable(() => void look());
    const timer = setInterval(() => (at = clock.now()), 1000);
    void look();
    return () => {
      unwatch();
      clearInterval(timer);
    };
  });

  async function takeBack(): Promise<void> {
    const act = latest;
    if (!act) return;
    done = await attempt.run(() => must(api.POST('/api/undo/{id}', { params: { path: { id: act.id } } })));
    if (done) undone.count += 1;
    await askAnew();
  }
</script>

{#if latest}
  <div
    class="sticky top-2 z-20 mb-3 flex flex-wrap items-center gap-x-4 gap-y-1 rounded-lg border border-line bg-card px-3 py-1.5 shadow-sm print:hidden"
    data-take-back
  >
    <p role="status" class="min-w-0 flex-1 basis-72">
      {#if done}
        Taken back. Nobody was told of it.
      {:else if attempt.problem}
        <strong>{attempt.problem.title}</strong> {attempt.problem.detail ?? ''}
      {:else if time === undefined}
        {said(latest)} {latest.mails > 0 ? 'Its mail is on its way: to change it again, open it.' : ''}
      {:else}
        {said(latest)} {mailOf(latest.mails)}
      {/if}
    </p>
    {#if !done && time !== undefined && !attempt.problem}
      <span class="text-muted tabular-nums" aria-hidden="true">{time}</span>
      <ActionButton disabled={attempt.busy} onclick={() => void takeBack()}>Take back</ActionButton>
    {/if}
    <TextButton class="py-1 text-sm" onclick={() => (latest = undefined)}>Hide</TextButton>
  </div>
{/if}
