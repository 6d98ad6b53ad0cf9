<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { lengthOf } from '$lib/time/format';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import type { LinkEditing } from './LinkEditing.svelte';
  import { dayAndTime } from './words';

  interface Props {
    link: LinkEditing;
    start: string;
    onbooked: () => void;
    onclose: () => void;
  }

  let { link, start, onbooked, onclose }: Props = $props();

  const booking = new Attempt();
  // What is typed is the reader's from then on.
  // svelte-ignore state_referenced_locally
  let name = $state(link.form.guests[0]?.name ?? '');
  // svelte-ignore state_referenced_locally
  let email = $state(link.form.guests[0]?.email ?? '');
  // svelte-ignore state_referenced_locally
  let minutes = $state(link.minutes);
  const isOurs = $derived(link.form.details.isAmongOurselves);
  const lengths = $derived(
    link.form.times.durations.map((duration) => ({ value: duration, text: lengthOf(duration) })),
  );
  const guests = $derived(link.form.guests.map((guest, at) => ({ value: at, text: guest.name })));

  function take(at: number): void {
    const guest = link.form.guests[at];
    if (guest) [name, email] = [guest.name, guest.email];
  }
  // One key for one wish: pressed again after a lost answer, the server finds the booking it made.
  const key = crypto.randomUUID();

  async function book(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const done = await booking.run(async () => {
      if ((link.isChanged || link.id === undefined) && !(await link.save())) return;
      const body = { start, duration: minutes, name, email };
      await must(
        api.POST('/api/links/{id}/bookings', {
          params: { path: { id: link.id ?? '' }, header: { 'Idempotency-Key': key } },
          body,
        }),
      );
    });
    if (link.problem) onclose();
    else if (done) onbooked();
  }
</script>

<Dialog title="Book {dayAndTime(start, link.form.times.zone)}" {onclose}>
  <form novalidate class="space-y-3" onsubmit={(event) => void book(event)}>
    {#if lengths.length > 1}<Segments
        label="How long"
        options={lengths}
        value={minutes}
        onchoose={(chosen) => (minutes = chosen)}
      />{/if}
    {#if isOurs}
      <p>It goes into the calendars of everyone in the line-up, in your name.</p>
    {:else}
      {#if guests.length > 1}<Segments
          label="Who takes it"
          options={guests}
          value={link.form.guests.findIndex((guest) => guest.name === name && guest.email === email)}
          onchoose={take}
        />{/if}
      <Field label="Guest’s name" id="hand-name" mend={mendOf(booking.problem, 'name')}
        ><Input id="hand-name" bind:value={name} /></Field
      >
      <Field label="Guest’s email" id="hand-email" mend={mendOf(booking.problem, 'email')}
        ><Input id="hand-email" type="email" bind:value={email} /></Field
      >
      <p class="text-sm text-muted">
        The invitation goes out at once. Other times held for {name || 'them'} is freed.
      </p>
    {/if}
    {#if booking.problem}<ProblemNote problem={booking.problem} />{/if}
    <div class="flex justify-end gap-3">
      <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
      <ActionButton kind="main" type="submit" disabled={booking.busy}>Book</ActionButton>
    </div>
  </form>
</Dialog>
