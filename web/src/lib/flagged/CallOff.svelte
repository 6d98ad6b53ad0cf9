<script lang="ts">
  import { Checkbox, Input, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { Looking } from '$lib/api/Looking.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import Blanks from '$lib/letters/Blanks.svelte';
  import ShownHow from '$lib/letters/ShownHow.svelte';
  import ShownLetter from '$lib/letters/ShownLetter.svelte';
  import { counted, dateIn, fullDate, shortDate, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { beginning } from './letter';

  interface Props {
    answer: Schemas['FlaggedBookings'];
    /** The reader's zone. */
    zone: string;
    oncalledoff: (count: number) => void;
  }

  let { answer, zone, oncalledoff }: Props = $props();

  // A flag is a word to the team and no verdict: whom it regards is chosen, and stays so whatever is loaded again.
  let ticked = $state.raw<ReadonlySet<string>>(new Set());
  let subject = $state(beginning.subject);
  let body = $state(beginning.body);
  let shownId = $state<string | undefined>(undefined);
  let how = $state<'text' | 'html'>('text');
  let letter = $state.raw<Schemas['ShownLetter'] | undefined>(undefined);
  const looking = new Looking();
  const calling = new Attempt();
  const choosable = $derived(answer.bookings.filter((one) => one.mayCallOff));
  const chosen = $derived(choosable.filter((one) => ticked.has(one.id)));
  /** Whose letters are shown: before anything is chosen, those that could be. */
  const read = $derived(chosen.length > 0 ? chosen : choosable);
  const shown = $derived(read.find((one) => one.id === shownId) ?? read[0]);
  const at = $derived(shown ? read.indexOf(shown) : 0);
  const request = $derived({ bookings: chosen.map((one) => one.id), subject, body });
  const faults = $derived(calling.problem ?? looking.problem);

  function tick(id: string, isOn: boolean): void {
    const next = new Set(ticked);
    if (isOn) next.add(id);
    else next.delete(id);
    ticked = next;
  }

  $effect(() => {
    const asked = shown && { callOff: request, show: shown.id };
    if (!asked || subject.trim() === '' || body.trim() === '') return;
    const timer = setTimeout(() => {
      void looking.look(async () => {
        letter = await must(api.POST('/api/bookings/flagged/preview', { body: asked }));
      });
    }, 350);
    return () => clearTimeout(timer);
  });

  async function callOff(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await calling.run(async () => {
      const done = await must(api.POST('/api/bookings/flagged/call-off', { body: request }));
      oncalledoff(done.count);
    });
  }
</script>

<form novalidate class="grid items-start gap-5 lg:grid-cols-2" onsubmit={(event) => void callOff(event)}>
  <section class="rounded-2xl border border-line bg-card p-5" aria-label="Flagged bookings">
    {#if choosable.length > 1}<div class="mb-3">
        <TextButton onclick={() => (ticked = new Set(choosable.map((one) => one.id)))}>Tick all</TextButton>
      </div>{/if}
    <ul>
      {#each answer.bookings as booking (booking.id)}
        <li class="border-t border-line py-3 first:border-t-0 first:pt-0">
          <div class="flex gap-3">
            <Checkbox
              aria-label="Call off the booking of {booking.guest}"
              disabled={!booking.mayCallOff}
              bind:checked={() => booking.mayCallOff && ticked.has(booking.id), (on) => tick(booking.id, on === true)}
            />
            <div class="min-w-0 flex-1">
              <a
                class="inline-flex min-h-6 items-center font-semibold underline decoration-line-strong underline-offset-4"
                href="/work/bookings/{booking.id}">{booking.guest}</a
              >
              <span title={fullDate(dateIn(booking.start, zone))}
                >{booking.page}, {shortDate(dateIn(booking.start, zone))}, {timeOf(
                  booking.start,
                  zone,
                )}{booking.waitsForYes ? ' (asked for)' : ''}</span
              >
              {#each booking.flags as flag (flag)}
                <p class="mt-1 border-l-4 border-ink bg-lane px-3 py-1"><strong>Flagged:</strong> {flag}</p>
              {/each}
              {#each booking.answers as given (given.question)}
                <p class="mt-1 text-fine"><span class="text-muted">{given.question}</span> {given.text}</p>
              {/each}
              {#if booking.email === ''}<p class="mt-1 text-fine text-muted">No email of the guest is known.</p>{/if}
              {#if !booking.mayCallOff}<p class="mt-1 text-fine text-muted">
                  {booking.hosts.join(', ')} must let you move bookings first.
                </p>{/if}
            </div>
          </div>
        </li>
      {/each}
    </ul>
    {#if answer.total > answer.bookings.length}<p class="mt-3 text-fine text-muted">
        The soonest {answer.bookings.length} of {answer.total} are listed.
      </p>{/if}
  </section>

  <section class="space-y-4 rounded-2xl border border-line bg-card p-5" aria-labelledby="letter">
    <div class="flex flex-wrap items-center justify-between gap-3">
      <h2 id="letter" class="text-lg">The letter</h2>
      <ShownHow bind:how />
    </div>
    {#if faults}<ProblemNote problem={faults} />{/if}
    <Field label="Subject" id="subject" mend={mendOf(faults, 'subject')}
      ><Input id="subject" autocomplete="off" bind:value={subject} /></Field
    >
    <Field label="Letter" id="body" mend={mendOf(faults, 'body')}
      ><Textarea id="body" rows={8} class="w-full" bind:value={body} /></Field
    >
    <Blanks blanks={answer.blanks} onchoose={(name) => (body = `${body}{{ ${name} }}`)} />
    {#if shown && letter}
      <div class="flex flex-wrap items-center justify-between gap-3">
        <p><span class="text-muted">Letter {at + 1} of {read.length}, to</span> {shown.guest}</p>
        <div class="flex gap-2">
          <ActionButton class="py-1" disabled={at === 0} onclick={() => (shownId = read[at - 1]?.id)}
            >Letter before</ActionButton
          >
          <ActionButton class="py-1" disabled={at >= read.length - 1} onclick={() => (shownId = read[at + 1]?.id)}
            >Next letter</ActionButton
          >
        </div>
      </div>
      <ShownLetter {letter} {how} />
    {/if}
    <ActionButton kind="main" type="submit" disabled={calling.busy || chosen.length === 0}
      >Call off {counted(chosen.length, 'booking', 'bookings')}</ActionButton
    >
    <p class="text-fine text-muted">
      Each guest gets this letter in place of the usual one, and the time is free again for others.
    </p>
  </section>
</form>
