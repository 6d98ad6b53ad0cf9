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
  let guests = $state(
    link.form.guests.length === 0 ? [{ name: '', email: '' }] : link.form.guests.map((guest) => ({ ...guest })),
  );
  // svelte-ignore state_referenced_locally
  let minutes = $state(link.minutes);
  const isOurs = $derived(link.form.details.isAmongOurselves);
  const lengths = $derived(
    link.form.times.durations.map((duration) => ({ value: duration, text: lengthOf(duration) })),
  );
  /** Of those who each take their own, one is chosen. */
  const eachTheirOwn = $derived(link.form.guests.length > 1 && !link.form.details.together);
  let who = $state(0);

  // One key for one wish: pressed again after a lost answer, the server finds the booking it made.
  const key = crypto.randomUUID();

  async function book(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const done = await booking.run(async () => {
      if ((link.isChanged || link.id === undefined) && !(await link.save())) return;
      const booked = eachTheirOwn ? guests.filter((_, at) => at === who) : guests;
      const body = { start, duration: minutes, guests: isOurs ? null : booked };
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
      <p>
        It goes into the calendars of everyone in the line-up. You arrange it; you take part only if you are in the
        line-up.
      </p>
    {:else}
      {#if eachTheirOwn}<Segments
          label="Who takes it"
          options={guests.map((guest, at) => ({ value: at, text: guest.name }))}
          value={who}
          onchoose={(at) => (who = at)}
        />{/if}
      {#each guests as guest, at (at)}
        {#if !eachTheirOwn || at === who}
          {@const [number, place] = [guests.length > 1 && !eachTheirOwn ? ` ${at + 1}` : '', eachTheirOwn ? 0 : at]}
          <Field
            label="Name of guest{number}"
            id="hand-name-{at}"
            mend={mendOf(booking.problem, `guests[${place}].name`)}
            ><Input id="hand-name-{at}" bind:value={guest.name} /></Field
          >
          <Field
            label="Email of guest{number} (optional)"
            id="hand-email-{at}"
            mend={mendOf(booking.problem, `guests[${place}].email`)}
            ><Input id="hand-email-{at}" type="email" bind:value={guest.email} /></Field
          >
        {/if}
      {/each}
      <p class="text-sm text-muted">
        Whoever has an email here gets an invitation at once; nobody else is mailed. What is held besides becomes free
        when the link takes no more.
      </p>
    {/if}
    {#if booking.problem}<ProblemNote problem={booking.problem} />{/if}
    <div class="flex justify-end gap-3">
      <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
      <ActionButton kind="main" type="submit" disabled={booking.busy}>Book</ActionButton>
    </div>
  </form>
</Dialog>
