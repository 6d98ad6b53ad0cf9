<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { mendOf } from '$lib/api/problem';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import QuestionFields from '$lib/questions/QuestionFields.svelte';
  import { dayName, longDate, timeOf, weekday } from '$lib/time/format';
  import { say } from '$lib/words/say.svelte';
  import { beside, inBrackets } from './beside';
  import type { ShownOpening } from './days';
  import type { GuestPageState } from './GuestPageState.svelte';
  import { changesInWords } from './inWords';
  import ForWhom from './ForWhom.svelte';
  import WhoIs from './WhoIs.svelte';
  import { clashOf } from './taken';
  import Choice from '$lib/ui/Choice.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    guest: GuestPageState;
    opening: ShownOpening;
    /** Where and with whom, in words. */
    circumstance: string;
    /** With whether one more place is meant. */
    onreserve: (oneMore: boolean) => void;
    onchoose: (opening: ShownOpening) => void;
  }

  let { guest, opening, circumstance, onreserve, onchoose }: Props = $props();

  const { page, zone, problem } = $derived(guest);
  const asks = $derived(page.approvalHours !== null);
  const isIn = $derived(problem?.type === 'urn:loose-lantern:booked-already');
  const gone = $derived(problem?.status === 409 && !isIn);
  const screened = $derived(problem?.type === 'urn:loose-lantern:screened');
  const needsCode = $derived(problem?.type === 'urn:loose-lantern:code-needed');
  const goTo = $derived(screened && typeof problem?.goTo === 'string' ? problem.goTo : undefined);
  const fieldProblem = $derived(problem?.errors !== undefined);
  const other = $derived(beside(opening.start, zone, guest.otherZone));
  const clash = $derived(clashOf(guest.taken, opening.start, opening.end));

  function submit(event: SubmitEvent): void {
    event.preventDefault();
    onreserve(false);
  }
</script>

<form
  novalidate
  aria-label={say('form.label', { day: weekday(opening.date), time: timeOf(opening.start, zone) })}
  class="mb-3 grid gap-x-6 gap-y-4 rounded-2xl border border-line-strong bg-card p-4 md:grid-cols-[246px_1fr]"
  onsubmit={submit}
>
  <header class="max-md:flex max-md:flex-wrap max-md:items-baseline max-md:gap-x-2">
    <h3 class="text-lg">{longDate(opening.date)}</h3>
    <p class="font-heading text-2xl font-semibold">{timeOf(opening.start, zone)} – {timeOf(opening.end, zone)}</p>
    <p class="mt-1 basis-full text-sm text-muted">
      {#if other}{other}.
      {/if}
      {circumstance}{circumstance === '' ? '' : '.'}
      {#if asks}{say('form.waits')}{/if}
    </p>
    {#if clash}<p class="mt-1 basis-full text-sm">
        <span aria-hidden="true">⚠</span>
        {say('form.clash', { title: clash.title })}
      </p>{/if}
  </header>

  <div class="grid content-start gap-4 md:grid-cols-2">
    {#if problem && screened}
      <div role="alert" class="rounded-lg border-l-4 border-edge bg-lane px-4 py-3 md:col-span-2">
        <p class="whitespace-pre-line">{problem.detail}</p>
        {#if goTo}<a
            class="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
            href={goTo}
            target={goTo.startsWith('/') ? undefined : '_top'}>{say('form.go-on-there')}</a
          >{/if}
      </div>
    {:else if problem && needsCode}
      <div role="status" class="rounded-lg border-l-4 border-edge bg-lane px-4 py-3 md:col-span-2">
        <p class="font-semibold">{problem.title}</p>
        {#if problem.detail}<p>{problem.detail}</p>{/if}
      </div>
    {:else if problem && !fieldProblem}
      <div class="md:col-span-2">
        <ProblemNote {problem}>
          {#if gone && guest.nearest.length > 0}
            <ul class="mt-2 flex flex-wrap gap-2" aria-label={say('form.nearest')}>
              {#each guest.nearestShown as near (near.start)}
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
            <p>{say('form.none-near')}</p>
          {:else if isIn}
            <ActionButton class="mt-2 min-h-11" disabled={guest.reserving} onclick={() => onreserve(true)}
              >{say('party.one-more')}</ActionButton
            >
          {/if}
        </ProblemNote>
      </div>
    {/if}
    <WhoIs {guest} {problem} under="guest.">
      {#if page.forOthers}
        <fieldset class="md:col-span-2">
          <legend class="sr-only">{say('for.whom')}</legend>
          <div class="flex flex-wrap gap-x-5">
            {#each [false, true] as isOther (isOther)}
              <Choice class="inline-flex min-h-11"
                ><input
                  type="radio"
                  name="for-whom"
                  class="border-edge"
                  checked={guest.other.isOn === isOther}
                  onchange={() => (guest.other.isOn = isOther)}
                />
                {isOther ? say('for.another') : say('for.me')}</Choice
              >
            {/each}
          </div>
        </fieldset>
        {#if guest.other.isOn}<ForWhom {guest} {problem} />{/if}
      {/if}
    </WhoIs>
    {#if guest.asksCode}
      <Field label={say('form.code')} id="guest-code" mend={mendOf(problem, 'code')}>
        <Input
          id="guest-code"
          name="code"
          inputmode="numeric"
          autocomplete="one-time-code"
          bind:value={guest.code}
          aria-invalid={mendOf(problem, 'code') !== undefined}
          class="min-h-10 max-md:min-h-11"
        />
        <TextButton
          class="min-h-11 text-muted"
          onclick={() => {
            guest.code = '';
            onreserve(false);
          }}>{say('form.another-code')}</TextButton
        >
      </Field>
    {/if}
    <QuestionFields questions={page.questions} bind:answers={guest.typed.answers} {problem} />
    <div class="flex items-center justify-between gap-x-3 gap-y-1 max-md:flex-col-reverse md:col-span-2">
      <div class="max-md:text-center">
        {#if page.cancelWords}<p class="text-sm whitespace-pre-line text-muted">{page.cancelWords}</p>{/if}
        {#if changesInWords(page)}<p class="text-sm text-muted">{changesInWords(page)}</p>{/if}
        <TextButton class="min-h-11 text-muted" onclick={() => guest.leave()}>{say('form.leave-time')}</TextButton>
      </div>
      <ActionButton kind="main" type="submit" disabled={guest.reserving || gone} class="min-h-11 px-5 max-md:w-full">
        {#if guest.reserving}
          {say('form.reserving')}
        {:else}
          {@const words = { time: timeOf(opening.start, zone), day: weekday(opening.date) }}
          {(asks ? say('form.ask', words) : say('form.reserve', words)) + inBrackets(other)}
        {/if}
      </ActionButton>
    </div>
  </div>
</form>
