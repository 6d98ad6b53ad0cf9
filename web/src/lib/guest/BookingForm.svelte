<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { mendOf, type Problem } from '$lib/api/problem';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import { cityOf } from '$lib/time/clock';
  import type { Question } from '$lib/questions/kinds';
  import QuestionFields from '$lib/questions/QuestionFields.svelte';
  import { dateIn, dayName, longDate, timeOf, weekday } from '$lib/time/format';
  import type { ShownOpening } from './days';

  interface Props {
    opening: ShownOpening;
    zone: string;
    /** The page's zone, named beside where the reader sees another. */
    pageZone: string;
    /** Where and with whom, in words. */
    circumstance: string;
    typed: { name: string; email: string; answers: Record<string, string> };
    questions: Question[];
    problem: Problem | undefined;
    /** The openings nearest to one that has gone. */
    nearest: ShownOpening[];
    busy: boolean;
    /** Whether what is reserved waits for a yes. */
    asks: boolean;
    onreserve: () => void;
    onchoose: (opening: ShownOpening) => void;
    onclose: () => void;
  }

  let { opening, zone, pageZone, circumstance, questions, typed = $bindable(), problem, nearest, busy, asks, onreserve, onchoose, onclose }: Props = $props();

  const gone = $derived(problem?.status === 409);
  const fieldProblem = $derived(problem?.errors !== undefined);
  const nameMend = $derived(mendOf(problem, 'guest.name'));
  const emailMend = $derived(mendOf(problem, 'guest.email'));

  function submit(event: SubmitEvent): void {
    event.preventDefault();
    onreserve();
  }
</script>

<form
  novalidate
  aria-label="Reserve {weekday(opening.date)}, {timeOf(opening.start, zone)}"
  class="mb-3 grid gap-x-6 gap-y-4 rounded-2xl border border-line-strong bg-card p-4 md:grid-cols-[246px_1fr]"
  onsubmit={submit}
>
  <header class="max-md:flex max-md:flex-wrap max-md:items-baseline max-md:gap-x-2">
    <h3 class="text-lg">{longDate(opening.date)}</h3>
    <p class="font-heading text-2xl font-semibold">{timeOf(opening.start, zone)} – {timeOf(opening.end, zone)}</p>
    <p class="mt-1 basis-full text-sm text-muted">
      {#if zone !== pageZone}
        {timeOf(opening.start, pageZone)}
        {dateIn(opening.start, pageZone) === opening.date ? '' : `on ${dayName(dateIn(opening.start, pageZone))}`} in {cityOf(pageZone)}.
      {/if}
      {circumstance}
      {#if asks}The time is kept for you until you hear whether it suits.{/if}
    </p>
  </header>

  <div class="grid content-start gap-4 md:grid-cols-2">
    {#if problem && !fieldProblem}
      <div class="md:col-span-2">
        <ProblemNote {problem}>
          {#if gone && nearest.length > 0}
            <ul class="mt-2 flex flex-wrap gap-2" aria-label="Nearest open times">
              {#each nearest as near (near.start)}
                <li>
                  <button
                    type="button"
                    data-start={near.start}
                    class="min-h-9 rounded-[10px] border border-glow-soft bg-glow-tint px-3 font-bold text-on-tint hover:bg-glow-soft max-md:min-h-11"
                    onclick={() => onchoose(near)}>{dayName(near.date)}, {timeOf(near.start, zone)}</button
                  >
                </li>
              {/each}
            </ul>
          {:else if gone}
            <p>No other time is open in these weeks.</p>
          {/if}
        </ProblemNote>
      </div>
    {/if}
    <Field label="Your name" id="guest-name" mend={nameMend}>
      <Input id="guest-name" name="name" autocomplete="name" bind:value={typed.name} aria-invalid={nameMend !== undefined} aria-describedby={nameMend ? 'guest-name-mend' : undefined} class="min-h-10 max-md:min-h-11" />
    </Field>
    <Field label="Your email" id="guest-email" mend={emailMend}>
      <Input id="guest-email" name="email" type="email" autocomplete="email" bind:value={typed.email} aria-invalid={emailMend !== undefined} aria-describedby={emailMend ? 'guest-email-mend' : undefined} class="min-h-10 max-md:min-h-11" />
    </Field>
    <QuestionFields {questions} bind:answers={typed.answers} {problem} />
    <div class="flex items-center justify-between gap-x-3 gap-y-1 max-md:flex-col-reverse md:col-span-2">
      <button type="button" class="min-h-11 text-muted underline underline-offset-4" onclick={onclose}>Leave this time</button>
      <ActionButton kind="main" type="submit" disabled={busy || gone} class="min-h-11 px-5 max-md:w-full">
        {busy ? 'Reserving…' : `${asks ? 'Ask for' : 'Reserve'} ${timeOf(opening.start, zone)} on ${weekday(opening.date)}`}
      </ActionButton>
    </div>
  </div>
</form>
