<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import { dateIn, dayMonth, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Mend from '$lib/ui/Mend.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { booking, notes, zone }: { booking: string; notes: Schemas['BookingNoteView'][]; zone: string } = $props();

  const noting = new Attempt();
  const changing = new Attempt();
  let text = $state('');
  let edited = $state<{ id: string; text: string } | undefined>(undefined);
  const path = $derived({ id: booking });

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!(await noting.run(() => must(api.POST('/api/bookings/{id}/notes', { params: { path }, body: { text } })))))
      return;
    text = '';
    await askAnew();
  }

  async function change(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const { id: note, text: now } = edited ?? { id: '', text: '' };
    const done = await changing.run(() =>
      must(api.PUT('/api/bookings/{id}/notes/{note}', { params: { path: { ...path, note } }, body: { text: now } })),
    );
    if (!done) return;
    edited = undefined;
    await askAnew();
  }

  async function remove(note: string): Promise<void> {
    await changing.run(() =>
      must(api.DELETE('/api/bookings/{id}/notes/{note}', { params: { path: { ...path, note } } })),
    );
    await askAnew();
  }
</script>

<section class="rounded-2xl border border-line bg-card p-5" aria-labelledby="notes">
  <h2 id="notes" class="mb-1 text-lg">Notes for your team</h2>
  <ul>
    {#each notes as note (note.id)}
      <li class="border-t border-line py-2 first:border-t-0">
        {#if edited?.id === note.id}
          <form novalidate onsubmit={(event) => void change(event)}>
            <Textarea aria-label="The note" rows={3} class="w-full" bind:value={edited.text} />
            {#if mendOf(changing.problem, 'text')}<Mend words={mendOf(changing.problem, 'text') ?? ''} />{/if}
            <div class="mt-2 flex gap-3">
              <ActionButton type="submit" disabled={changing.busy}>Save note</ActionButton>
              <ActionButton kind="quiet" onclick={() => (edited = undefined)}>Cancel</ActionButton>
            </div>
          </form>
        {:else}
          <p class="wrap-anywhere whitespace-pre-line">{note.text}</p>
          <p class="flex flex-wrap items-center gap-x-3 text-sm text-muted">
            {note.by}, {dayMonth(dateIn(note.at, zone))}, {timeOf(note.at, zone)}{note.changedAt ? ', changed' : ''}
            {#if note.isMine}<TextButton class="min-h-6" onclick={() => (edited = { id: note.id, text: note.text })}
                >Change</TextButton
              >{/if}
            {#if note.mayRemove}<TextButton
                class="min-h-6"
                disabled={changing.busy}
                onclick={() => void remove(note.id)}>Delete</TextButton
              >{/if}
          </p>
        {/if}
      </li>
    {/each}
  </ul>
  {#if changing.problem && !changing.problem.errors}<ProblemNote problem={changing.problem} />{/if}
  <form novalidate class="mt-2 space-y-2" onsubmit={(event) => void add(event)}>
    <Textarea
      aria-label="A note that only your team sees"
      placeholder="A note that only your team sees"
      rows={2}
      class="w-full"
      bind:value={text}
    />
    {#if mendOf(noting.problem, 'text')}<Mend words={mendOf(noting.problem, 'text') ?? ''} />{/if}
    {#if noting.problem && !mendOf(noting.problem, 'text')}<ProblemNote problem={noting.problem} />{/if}
    <ActionButton type="submit" disabled={noting.busy}>Add note</ActionButton>
  </form>
</section>
