<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import RecordList from '$lib/record/RecordList.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  // One at a time: each choice is sent with the others as they stand.
  const kinds = [
    { key: 'mayOffer', text: 'offer my time' },
    { key: 'mayBook', text: 'book it' },
    { key: 'mayMove', text: 'move my bookings' },
    { key: 'seesTitles', text: 'see titles, not only busy' },
  ] as const;

  async function set(
    coordinator: Schemas['CoordinatorGrant'],
    key: keyof Schemas['Grant'],
    allowed: boolean,
  ): Promise<void> {
    await attempt.run(async () => {
      await must(
        api.PUT('/api/me/acting/{personId}', {
          params: { path: { personId: coordinator.personId } },
          body: { ...coordinator.grant, [key]: allowed },
        }),
      );
    });
    await askAnew();
  }
</script>

<svelte:head><title>Acting for me – Loose Lantern</title></svelte:head>

{#if problem}<div class="mb-3"><ProblemNote {problem} /></div>{/if}
<p class="mb-3">
  Coordinators you choose do these things in your name. They see that they are acting for you, and what they do is
  listed below. Changes apply at once.
</p>
{#if data.grants.length === 0}
  <p class="rounded-2xl border border-line bg-card p-5 text-muted">There is no other coordinator in this workspace.</p>
{:else}
  <ul class="overflow-hidden rounded-2xl border border-line bg-card">
    {#each data.grants as coordinator (coordinator.personId)}
      <li class="flex flex-wrap items-center gap-x-6 gap-y-2 border-t border-line px-4 py-3 first:border-t-0">
        <span class="min-w-40 font-semibold">{coordinator.name}</span>
        {#each kinds as kind (kind.key)}
          <Checkbox
            checked={coordinator.grant[kind.key]}
            disabled={attempt.busy}
            aria-label="{coordinator.name} may {kind.text}"
            onchange={(event: Event & { currentTarget: HTMLInputElement }) =>
              void set(coordinator, kind.key, event.currentTarget.checked)}>{kind.text}</Checkbox
          >
        {/each}
      </li>
    {/each}
  </ul>
{/if}
<section aria-labelledby="done-for-me" class="mt-6">
  <h2 id="done-for-me" class="mb-1.5 text-lg">Done on my behalf</h2>
  {#if data.record.length > 0}
    <div class="rounded-2xl border border-line bg-card px-4 py-2">
      <RecordList lines={data.record} zone={data.me.zone} />
    </div>
  {:else}
    <p class="text-muted">Nobody has done anything in your name yet.</p>
  {/if}
</section>
