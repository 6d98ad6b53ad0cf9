<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { changeInWords, datesInWords, effectInWords } from '$lib/hours/changes';
  import { weekInWords } from '$lib/hours/week';
  import { askAnew } from '$lib/live/anew';
  import { cityOf } from '$lib/time/clock';
  import { dateIn } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { PageProps } from './$types';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { data }: PageProps = $props();

  let told = $state.raw<string[]>([]);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  const own = $derived(data.hosts.find((host) => host.id === data.me.hostId));

  async function choose(hoursId: string): Promise<void> {
    await attempt.run(async () => {
      told = (await must(api.PUT('/api/me/hours', { body: { hoursId } }))).map(effectInWords);
    });
    await askAnew();
  }
</script>

<svelte:head><title>Hours – Loose Lantern</title></svelte:head>

<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <h1 class="text-page">Hours</h1>
  <ActionButton kind="main" href="/work/hours/new">New hours</ActionButton>
</header>
{#if problem}<div class="mb-3"><ProblemNote {problem} /></div>{/if}
<div aria-live="polite">
  {#if told.length > 0}<p class="mb-3 rounded-lg border-l-4 border-glow bg-glow-tint px-4 py-2 text-on-tint">
      {told.join('; ')}.
    </p>{/if}
</div>
{#if data.hours.length === 0}
  <p class="rounded-2xl border border-line bg-card p-6 text-muted">
    No hours yet. Hours say by week, and for single dates, when someone can be booked.
  </p>
{:else}
  <ul class="overflow-hidden rounded-2xl border border-line bg-card">
    {#each data.hours as hours (hours.id)}
      {@const next = hours.document.changes
        .filter((change) => change.to >= dateIn(data.me.now, hours.document.zone))
        .sort((a, b) => a.from.localeCompare(b.from))}
      <li class="grid gap-x-4 gap-y-0.5 border-t border-line px-4 py-3 first:border-t-0 md:grid-cols-[240px_1fr_auto]">
        <a class="font-semibold underline-offset-4 hover:underline" href="/work/hours/{hours.id}">{hours.name}</a>
        <div class="text-sm">
          <p>{weekInWords(hours.document.week)}, {cityOf(hours.document.zone)} time</p>
          <p class="text-muted">
            {hours.hosts.length > 0 ? hours.hosts.map((host) => host.name).join(', ') : 'nobody’s'}{hours.pages.length >
            0
              ? `; on ${hours.pages.join(', ')}`
              : ''}{next[0]
              ? `; next: ${datesInWords(next[0])}, ${changeInWords(next[0])}${next.length > 1 ? ` and ${next.length - 1} more` : ''}`
              : ''}
          </p>
        </div>
        {#if own}
          <div class="text-sm">
            {#if own.hoursId === hours.id}<span class="rounded-full bg-sea-tint px-3 py-0.5 font-semibold text-sea-text"
                >yours</span
              >
            {:else}<TextButton
                aria-label="Use as my hours: {hours.name}"
                class="min-h-8"
                onclick={() => void choose(hours.id)}>Use as my hours</TextButton
              >{/if}
          </div>
        {/if}
      </li>
    {/each}
  </ul>
{/if}
