<script lang="ts">
  import { goto } from '$app/navigation';
  import { untrack } from 'svelte';
  import { Input, Select } from 'flowbite-svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import Sentence from '$lib/pages/Sentence.svelte';
  import { addressOf, type RecordFilter } from '$lib/record/filter';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, fullDate, timeOf } from '$lib/time/format';
  import { LaterRuns } from '$lib/ui/LaterRuns.svelte';
  import MoreBelow from '$lib/ui/MoreBelow.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const IN_ONE_RUN = 100;
  const none: Schemas['RecordRun'] = { total: 0, rows: [], before: null, after: null };
  const filter = $derived(data.filter);
  const list = $derived(data.record ?? none);
  const choice = $derived(addressOf(filter));
  // svelte-ignore state_referenced_locally
  const runs = new LaterRuns<Schemas['RecordRow']>(
    choice,
    () => list,
    (after) => must(api.GET('/api/record/lines', { params: { query: { ...filter, after, take: IN_ONE_RUN } } })),
  );
  const days = $derived.by(() => {
    const grouped: { date: string; rows: Schemas['RecordRow'][] }[] = [];
    for (const row of runs.rows) {
      const date = dateIn(row.at, data.me.zone);
      const day = grouped.at(-1);
      if (day?.date === date) day.rows.push(row);
      else grouped.push({ date, rows: [row] });
    }
    return grouped;
  });

  $effect(() => {
    const now = choice;
    // Whenever the answer comes anew.
    if (list) untrack(() => void runs.renew(now));
  });

  function show(change: RecordFilter): void {
    void goto(addressOf({ ...filter, ...change }), { replaceState: true, keepFocus: true, noScroll: true });
  }
</script>

<svelte:head><title>Record – Loose Lantern</title></svelte:head>

<header class="mb-2">
  <h1 class="text-page">Record</h1>
  <p class="text-muted">Who of your team did what, and for whom. {cityOf(data.me.zone)} time.</p>
</header>
<div class="mb-4">
  <Sentence mends={[mendOf(data.problem, 'from'), mendOf(data.problem, 'to')]}>
    Done by
    <span class="w-44"
      ><Select
        aria-label="Done by"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={() => filter.person ?? '', (person) => show({ person })}
        items={[{ value: '', name: 'anybody' }, ...data.people.map((one) => ({ value: one.id, name: one.name }))]}
      /></span
    >
    <span class="w-48"
      ><Input
        type="search"
        aria-label="Words of what was done"
        placeholder="Gave, published, …"
        class="py-1.5"
        value={filter.words ?? ''}
        onchange={(event) => show({ words: event.currentTarget.value })}
      /></span
    >
    <label class="flex items-center gap-2"
      >from <Input
        type="date"
        class="w-40 py-1.5"
        value={filter.from ?? ''}
        onchange={(event) => show({ from: event.currentTarget.value })}
      /></label
    >
    <label class="flex items-center gap-2"
      >to <Input
        type="date"
        class="w-40 py-1.5"
        value={filter.to ?? ''}
        onchange={(event) => show({ to: event.currentTarget.value })}
      /></label
    >
    {#if filter.subject}<span
        >of one thing alone <TextButton class="min-h-6 text-fine" onclick={() => show({ subject: '' })}
          >of everything</TextButton
        ></span
      >{/if}
  </Sentence>
</div>

{#if data.problem}
  {#if !mendOf(data.problem, 'from') && !mendOf(data.problem, 'to')}<ProblemNote problem={data.problem} />{/if}
{:else if list.total === 0}
  <p class="max-w-xl rounded-2xl border border-line bg-card p-6">Nothing of that was done.</p>
{:else}
  <div class="max-w-4xl rounded-2xl border border-line bg-card p-5">
    {#each days as day (day.date)}
      <section aria-label={fullDate(day.date)} class="mb-3 last:mb-0">
        <h2 class="font-heading text-body font-semibold">{fullDate(day.date)}</h2>
        <ul data-rows>
          {#each day.rows as row (row.id)}
            <li class="grid grid-cols-[58px_1fr] gap-x-2 border-t border-line py-1.5 first:border-t-0">
              <span class="text-fine text-muted tabular-nums">{timeOf(row.at, data.me.zone)}</span>
              <span class="min-w-0 wrap-anywhere">
                {#if row.way}<a
                    class="inline-block min-h-6 underline decoration-line-strong underline-offset-4"
                    href={row.way}>{row.what}</a
                  >{:else}{row.what}{/if}
                <span class="block text-sm text-muted"
                  >{row.person}{row.for.length > 0 ? `, for ${row.for.join(', ')}` : ''}</span
                >
              </span>
            </li>
          {/each}
        </ul>
      </section>
    {/each}
  </div>
  <MoreBelow
    shown={runs.rows.length}
    total={list.total}
    isWhole={runs.isWhole}
    busy={runs.busy}
    problem={runs.problem}
    onmore={() => void runs.more()}
  />
{/if}
