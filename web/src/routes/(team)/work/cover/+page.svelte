<script lang="ts">
  import { afterNavigate, goto } from '$app/navigation';
  import { untrack } from 'svelte';
  import { Checkbox, Input, Select, Textarea } from 'flowbite-svelte';
  import { Temporal } from 'temporal-polyfill';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { Looking } from '$lib/api/Looking.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import CoverBoard from '$lib/cover/CoverBoard.svelte';
  import CoverLetters from '$lib/cover/CoverLetters.svelte';
  import CoverLine from '$lib/cover/CoverLine.svelte';
  import { formOf } from '$lib/cover/plan';
  import { doneInWords, pressOf, sumOf } from '$lib/cover/words';
  import { cityOf } from '$lib/time/clock';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { undone } from '$lib/undo/undone.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  /** All of the days, whether or not something is to be done about it. */
  let all = $state.raw<Schemas['CoverLineView'][]>([]);
  let plan = $state.raw<Schemas['CoverView'] | undefined>(undefined);
  let skipped = $state.raw<ReadonlySet<string>>(new Set());
  let decided = $state.raw<Schemas['CoverDecision'][]>([]);
  let word = $state('');
  let tellKept = $state(true);
  let done = $state.raw<Schemas['CoverDone'] | undefined>(undefined);
  const looking = new Looking();
  const doing = new Attempt();
  const kinds = $derived(new Map(data.hosts.map((host) => [host.id, host.kind])));
  const others = $derived(data.hosts.filter((host) => !data.away.includes(host.id)));
  const lines = $derived(all.map((line) => plan?.lines.find((one) => one.session === line.session) ?? line));
  const form = $derived(plan && formOf(plan, data.away, word, tellKept));
  const week = $derived(
    Temporal.PlainDate.from(data.today)
      .add({ days: 7 - Temporal.PlainDate.from(data.today).dayOfWeek })
      .toString(),
  );

  interface Asked {
    away: string[];
    from: string;
    to: string;
  }

  /** What was chosen last, until its answer is shown: the next choice counts beside it, however fast it follows. */
  let choosing = $state.raw<Asked | undefined>(undefined);
  afterNavigate(() => (choosing = undefined));

  function show(next: Partial<Asked>): void {
    const asked = { ...(choosing ?? { away: data.away, from: data.from, to: data.to }), ...next };
    if (asked.to < asked.from) asked.to = asked.from;
    choosing = asked;
    const query = new URLSearchParams(asked.away.map((host) => ['host', host]));
    if (asked.from !== data.today) query.set('from', asked.from);
    if (asked.to !== asked.from) query.set('to', asked.to);
    void goto(`?${query}`, { replaceState: true, keepFocus: true, noScroll: true });
  }

  // What was taken back is there again, to be looked at anew.
  const days = $derived(JSON.stringify([data.away, data.from, data.to, undone.count]));
  let ofDays = '';

  $effect(() => {
    const isNew = days !== ofDays;
    const [away, from, to] = JSON.parse(days) as [string[], string, string];
    // What was decided of other days counts no more.
    const [byHand, left] = [decided, skipped];
    untrack(() => void work(isNew, { away, from, to, decided: isNew ? [] : byHand }, isNew ? new Set<string>() : left));
  });

  async function work(isNew: boolean, request: Schemas['CoverRequest'], left: ReadonlySet<string>): Promise<void> {
    if (isNew) {
      ofDays = days;
      [all, plan, done] = [[], undefined, undefined];
      [skipped, decided] = [new Set(), []];
    }
    if (request.away.length === 0) return;
    const sessions = left.size > 0 ? all.filter((line) => !left.has(line.session)).map((line) => line.session) : null;
    await looking.look(async () => {
      const answer = await must(api.POST('/api/covers/plan', { body: { ...request, sessions } }));
      plan = answer;
      if (sessions === null) all = answer.lines;
    });
  }

  function skip(session: string, isSkipped: boolean): void {
    const next = new Set(skipped);
    if (isSkipped) next.add(session);
    else next.delete(session);
    skipped = next;
  }

  function decide(session: string, decision: Schemas['CoverDecision'] | undefined): void {
    decided = [...decided.filter((one) => one.session !== session), ...(decision ? [decision] : [])];
  }

  async function carryOut(): Promise<void> {
    const asked = form;
    if (!asked) return;
    const isDone = await doing.run(async () => {
      done = await must(api.POST('/api/covers', { body: asked }));
    });
    if (isDone) [plan, all] = [undefined, []];
  }
</script>

<svelte:head><title>Find cover – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/bookings">Bookings</a></p>
<h1 class="text-page mb-1">Find cover</h1>
<p class="mb-4 max-w-3xl text-muted">
  Somebody can’t come. Their bookings go to others who are free then, or their guests are offered new times. Nothing is
  done before you press the button.
</p>

<section
  class="mb-5 flex flex-wrap items-start gap-4 rounded-2xl border border-line bg-card p-5"
  aria-label="Who and when"
>
  <div class="min-w-60">
    <Field label="Who can’t come" id="away" mend={mendOf(looking.problem, 'away')}>
      {#if data.away.length > 0}
        <ul class="mb-1.5 flex flex-wrap gap-2">
          {#each data.hosts.filter((host) => data.away.includes(host.id)) as host (host.id)}
            <li
              class="inline-flex items-center gap-2 rounded-full border border-chosen bg-chosen px-3 text-sm text-on-chosen"
            >
              {host.name}
              <button
                type="button"
                class="min-h-8 px-1"
                aria-label="{host.name} can come"
                onclick={() => show({ away: data.away.filter((id) => id !== host.id) })}>×</button
              >
            </li>
          {/each}
        </ul>
      {/if}
      <Select
        id="away"
        placeholder={data.away.length > 0 ? 'and somebody else' : 'Choose somebody'}
        value=""
        items={others.map((host) => ({ value: host.id, name: host.name }))}
        onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
          event.currentTarget.value && show({ away: [...data.away, event.currentTarget.value] })}
      />
    </Field>
  </div>
  <div class="w-44">
    <Field label="From" id="cover-from" mend={mendOf(looking.problem, 'from')}
      ><Input
        id="cover-from"
        type="date"
        value={data.from}
        onchange={(event: Event & { currentTarget: HTMLInputElement }) =>
          event.currentTarget.value && show({ from: event.currentTarget.value })}
      /></Field
    >
  </div>
  <div class="w-44">
    <Field label="To, included" id="cover-to" mend={mendOf(looking.problem, 'to')}
      ><Input
        id="cover-to"
        type="date"
        min={data.from}
        value={data.to}
        onchange={(event: Event & { currentTarget: HTMLInputElement }) =>
          event.currentTarget.value && show({ to: event.currentTarget.value })}
      /></Field
    >
  </div>
  <p class="flex flex-wrap gap-x-4 pt-7">
    <TextButton class="min-h-9" onclick={() => show({ from: data.today, to: data.today })}>Today</TextButton>
    <TextButton class="min-h-9" onclick={() => show({ from: data.today, to: week })}>Until Sunday</TextButton>
  </p>
</section>

{#if looking.problem && !looking.problem.errors}<div class="mb-4"><ProblemNote problem={looking.problem} /></div>{/if}
{#if mendOf(looking.problem, 'decided')}<p role="alert" class="mb-4 text-brick-text">
    {mendOf(looking.problem, 'decided')}
  </p>{/if}
{#if done}
  <p role="status" class="mb-4 max-w-xl rounded-2xl border border-line bg-card p-5">
    {doneInWords(done, data.me.undoMinutes > 0)}
  </p>
{:else if plan && all.length === 0}
  <p class="max-w-xl rounded-2xl border border-line bg-card p-5" role="status">
    Nothing is booked with them in these days.
  </p>
{:else if plan && form}
  <div class="grid items-start gap-5 xl:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]">
    <div class="min-w-0 space-y-5">
      <section class="rounded-2xl border border-line bg-card p-5" aria-labelledby="plan">
        <h2 id="plan" class="text-lg">Who takes what</h2>
        <p class="mb-3">
          <span role="status">{sumOf(plan)}</span>
          <span class="text-muted">Times in {cityOf(data.me.zone)}.</span>
        </p>
        <ul>
          {#each lines as line (line.session)}
            <CoverLine
              {line}
              lines={plan.lines}
              away={data.away}
              {kinds}
              zone={data.me.zone}
              isSkipped={skipped.has(line.session)}
              onskip={(isSkipped) => skip(line.session, isSkipped)}
              ondecide={(decision) => decide(line.session, decision)}
            />
          {/each}
        </ul>
        {#if plan.loads.some((load) => !load.isAway)}<p class="mt-3 text-fine text-muted">
            Bookings in these weeks, before and after: {plan.loads
              .filter((load) => !load.isAway)
              .map((load) => `${load.name} ${load.before} → ${load.after}`)
              .join(', ')}
          </p>{/if}
      </section>
      {#if plan.lines.length > 0}<section aria-label="The plan on the board">
          <CoverBoard
            lines={plan.lines}
            hosts={plan.loads.map((load) => load.host)}
            zone={data.me.zone}
            today={data.today}
          />
        </section>{/if}
    </div>
    <section class="space-y-4 rounded-2xl border border-line bg-card p-5" aria-labelledby="letters">
      <h2 id="letters" class="text-lg">The letters</h2>
      <Field label="A word to all of them" id="word" mend={mendOf(doing.problem, 'word')} hint="May stay empty."
        ><Textarea id="word" rows={3} class="w-full" bind:value={word} /></Field
      >
      <Checkbox bind:checked={tellKept}>Tell guests whose time stays who comes instead</Checkbox>
      {#if plan.lines.length > 0}<CoverLetters {form} />{/if}
      {#if doing.problem}<ProblemNote problem={doing.problem} />{/if}
      <ActionButton
        kind="main"
        disabled={doing.busy || looking.busy || plan.lines.length === 0}
        onclick={() => void carryOut()}>{pressOf(plan)}</ActionButton
      >
      {#if doing.busy}<p role="status">Giving all of them away at once takes a moment …</p>{/if}
      <p class="text-fine text-muted">
        {#if data.me.undoMinutes > 0}The letters wait ten minutes; as long all of it can be taken back.{:else}The
          letters go out at once.{/if}
      </p>
    </section>
  </div>
{:else if looking.busy}
  <p class="text-muted" role="status">Working it out …</p>
{/if}
