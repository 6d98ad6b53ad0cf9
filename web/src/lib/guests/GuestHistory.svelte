<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import { cityOf, sameClock } from '$lib/time/clock';
  import { dateIn, dayMonth, fullDate, longDate, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Mend from '$lib/ui/Mend.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { happened, wayTo, type GuestEvent } from './events';

  interface Props {
    guest: Schemas['GuestDetail'];
    history: Schemas['GuestHistoryRun'];
    me: { zone: string; isOwner: boolean };
  }

  let { guest, history, me }: Props = $props();

  const noting = new Attempt();
  const changing = new Attempt();
  const reading = new Attempt();
  let note = $state('');
  let edited = $state<{ id: string; text: string } | undefined>(undefined);
  /** What was read further back than what the screen loads. */
  let earlier = $state.raw<{ events: GuestEvent[]; next: string | null } | undefined>(undefined);
  const events = $derived([...history.events, ...(earlier?.events ?? [])]);
  const next = $derived(earlier ? earlier.next : history.earlier);
  const days = $derived.by(() => {
    const grouped: { date: string; events: GuestEvent[] }[] = [];
    for (const event of events) {
      const date = dateIn(event.at, me.zone);
      const day = grouped.at(-1);
      if (day?.date === date) day.events.push(event);
      else grouped.push({ date, events: [event] });
    }
    return grouped;
  });
  const thisYear = $derived(dateIn(history.now, me.zone).slice(0, 4));

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const isDone = await noting.run(() =>
      must(api.POST('/api/guests/{id}/notes', { params: { path: { id: guest.id } }, body: { text: note } })),
    );
    if (!isDone) return;
    note = '';
    await askAnew();
  }

  async function change(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const { id, text } = edited ?? { id: '', text: '' };
    const isDone = await changing.run(() =>
      must(api.PUT('/api/guests/{id}/notes/{note}', { params: { path: { id: guest.id, note: id } }, body: { text } })),
    );
    if (!isDone) return;
    [edited, earlier] = [undefined, undefined];
    await askAnew();
  }

  async function remove(id: string): Promise<void> {
    await changing.run(() =>
      must(api.DELETE('/api/guests/{id}/notes/{note}', { params: { path: { id: guest.id, note: id } } })),
    );
    earlier = undefined;
    await askAnew();
  }

  async function readOn(): Promise<void> {
    if (next === null) return;
    await reading.run(async () => {
      const run = await must(
        api.GET('/api/guests/{id}/history', { params: { path: { id: guest.id }, query: { before: next } } }),
      );
      earlier = { events: [...(earlier?.events ?? []), ...run.events], next: run.earlier };
    });
  }

  /** The time it is about, by the reader's clock and by the guest's. */
  function times(event: GuestEvent): string {
    if (event.start === null) return '';
    const one = (at: string): string => `${dayMonth(dateIn(at, me.zone))}, ${timeOf(at, me.zone)}`;
    const there = guest.zone;
    const both =
      there && !sameClock(there, me.zone, event.start) ? ` (${timeOf(event.start, there)} in ${cityOf(there)})` : '';
    return `${event.was ? `from ${one(event.was)} to ` : ''}${one(event.start)}${both}`;
  }
</script>

<section aria-labelledby="history" class="rounded-2xl border border-line bg-card p-5">
  <h2 id="history" class="mb-2 text-lg">What happened</h2>
  <form novalidate class="mb-3 flex flex-wrap items-start gap-3" onsubmit={(event) => void add(event)}>
    <div class="min-w-60 flex-1">
      <Textarea
        aria-label="A note, for your team alone"
        rows={2}
        class="w-full"
        placeholder="A note, for your team alone"
        bind:value={note}
      />
      {#if mendOf(noting.problem, 'text')}<Mend words={mendOf(noting.problem, 'text') ?? ''} />{/if}
    </div>
    <ActionButton type="submit" disabled={noting.busy}>Add note</ActionButton>
  </form>
  {#if noting.problem && !mendOf(noting.problem, 'text')}<ProblemNote problem={noting.problem} />{/if}
  {#if changing.problem}<ProblemNote problem={changing.problem} />{/if}
  {#each days as day (day.date)}
    <h3 class="font-heading mt-3 text-body font-semibold">
      {day.date.slice(0, 4) === thisYear ? longDate(day.date) : fullDate(day.date)}
    </h3>
    <ol class="border-l-2 border-line">
      {#each day.events as event, at (`${event.kind} ${event.at} ${event.id ?? ''} ${at}`)}
        {@const way = wayTo(event)}
        <li class="grid grid-cols-[58px_1fr] gap-x-2 py-1 pl-3">
          <span class="text-fine text-muted tabular-nums">{timeOf(event.at, me.zone)}</span>
          <div class="min-w-0">
            <p>
              <span class={event.isOver ? 'text-muted' : ''}>{happened(event)}</span
              >{#if event.title && event.kind !== 'merged'}:
                {#if way}<a class="wrap-anywhere underline decoration-line-strong underline-offset-4" href={way}
                    >{event.title}</a
                  >{:else}<span class="wrap-anywhere">{event.title}</span>{/if}{/if}{#if times(event)}, <span
                  class="whitespace-nowrap">{times(event)}</span
                >{/if}{#if event.by && event.kind !== 'moved'}<span class="text-muted">, {event.by}</span>{/if}
            </p>
            {#if event.kind === 'noted' && edited && edited.id === event.id}
              <form novalidate class="mt-1 space-y-2" onsubmit={(submit) => void change(submit)}>
                <Textarea aria-label="The note" rows={3} class="w-full" bind:value={edited.text} />
                {#if mendOf(changing.problem, 'text')}<Mend words={mendOf(changing.problem, 'text') ?? ''} />{/if}
                <span class="flex gap-3"
                  ><ActionButton type="submit" disabled={changing.busy}>Save note</ActionButton><ActionButton
                    kind="quiet"
                    onclick={() => (edited = undefined)}>Cancel</ActionButton
                  ></span
                >
              </form>
            {:else if event.text && event.kind !== 'known'}
              <p class="wrap-anywhere whitespace-pre-line {event.kind === 'noted' ? '' : 'text-muted'}">{event.text}</p>
            {/if}
            {#each event.answers as answer (answer.question)}
              <p class="text-fine wrap-anywhere text-muted">
                {answer.question} <span class="text-ink">{answer.text}</span>
              </p>
            {/each}
            {#if event.kind === 'noted' && event.id && edited?.id !== event.id && (event.isYours || me.isOwner)}
              {@const id = event.id}
              <span class="flex gap-4 text-fine">
                {#if event.isYours}<TextButton class="min-h-7" onclick={() => (edited = { id, text: event.text })}
                    >Edit</TextButton
                  >{/if}
                <TextButton class="min-h-7" disabled={changing.busy} onclick={() => void remove(id)}>Delete</TextButton>
              </span>
            {/if}
          </div>
        </li>
      {/each}
    </ol>
  {/each}
  {#if reading.problem}<ProblemNote problem={reading.problem} />{/if}
  {#if next !== null}<div class="mt-3">
      <ActionButton disabled={reading.busy} onclick={() => void readOn()}>Earlier</ActionButton>
    </div>{/if}
</section>
