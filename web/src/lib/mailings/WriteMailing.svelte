<script lang="ts">
  import { goto } from '$app/navigation';
  import { Input, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { Looking } from '$lib/api/Looking.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { WishKey } from '$lib/guest/WishKey';
  import Blanks from '$lib/letters/Blanks.svelte';
  import OfferChoice from '$lib/letters/OfferChoice.svelte';
  import ShownHow from '$lib/letters/ShownHow.svelte';
  import ShownLetter from '$lib/letters/ShownLetter.svelte';
  import StartFromLetter from '$lib/letters/StartFromLetter.svelte';
  import { choices, ofPattern, type Offer } from '$lib/letters/writing';
  import LeaveGuard from '$lib/pages/LeaveGuard.svelte';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import AddGuests from './AddGuests.svelte';
  import MailingGuests from './MailingGuests.svelte';
  import { obstacleOf, supplyInWords, withAdded, type MailingGuest } from './mailing';

  interface Props {
    /** Those it begins with. */
    begun: MailingGuest[];
    letters: Schemas['LettersAnswer'];
    all: Schemas['LetterChoices'];
    hosts: Schemas['HostView'][];
    views: Schemas['SavedGuestView'][];
    today: string;
    usualUntil: string;
  }

  let { begun, letters, all, hosts, views, today, usualUntil }: Props = $props();

  // What is written stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  let guests = $state.raw<MailingGuest[]>(begun);
  let subject = $state('');
  let body = $state('');
  let offer = $state.raw<Offer>({ kind: 'nothing', id: null });
  let at = $state(0);
  let preview = $state.raw<Schemas['MailingPreview'] | undefined>(undefined);
  let previewed = $state('');
  let how = $state<'text' | 'html'>('text');
  const looking = new Looking();
  const sending = new Attempt();
  const key = new WishKey();
  let isSent = $state(false);
  /** Guests and words are kept nowhere else until they are sent. */
  const isTouched = $derived(!isSent && (guests !== begun || subject !== '' || body !== ''));
  const mailing = $derived({ subject, body, offer, guests });
  const faults = $derived(sending.problem ?? looking.problem);
  const chosen = $derived(guests[at]);
  const isWritten = $derived(subject.trim() !== '' && body.trim() !== '' && guests.length > 0);
  const listed = $derived(guests.map((one) => one.email).join('\n'));
  /** As long as it is of the guests who are listed; what is written to them may be newer. */
  const current = $derived(isWritten && previewed === listed ? preview : undefined);
  const stands = $derived(current && obstacleOf(current, offer));

  function startFrom(letter: Schemas['LetterForm']): void {
    ({ subject, body } = letter);
    if (letter.patternId) offer = ofPattern(letter.patternId, offer, usualUntil);
  }

  function change(i: number, next: Partial<MailingGuest>): void {
    guests = guests.map((one, place) => (place === i ? { ...one, ...next } : one));
  }

  function remove(i: number): void {
    guests = guests.filter((_, place) => place !== i);
    at = Math.max(0, Math.min(i < at ? at - 1 : at, guests.length - 1));
  }

  $effect(() => {
    const asked = { mailing: { subject, body, offer, guests }, show: at };
    if (!isWritten) return;
    const timer = setTimeout(() => {
      void looking.look(async () => {
        preview = await must(api.POST('/api/mailings/preview', { body: asked }));
        previewed = asked.mailing.guests.map((one) => one.email).join('\n');
      });
    }, 350);
    return () => clearTimeout(timer);
  });

  async function send(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await sending.run(async () => {
      const sent = await must(
        api.POST('/api/mailings', {
          params: { header: { 'Idempotency-Key': key.keyFor(JSON.stringify(mailing)) } },
          body: mailing,
        }),
      );
      isSent = true;
      await goto(`/work/guests/mailings/${sent.id}`);
    });
  }
</script>

<LeaveGuard {isTouched} />

<form novalidate class="grid items-start gap-5 lg:grid-cols-2" onsubmit={(event) => void send(event)}>
  <div class="space-y-5">
    <section class="space-y-4 rounded-2xl border border-line bg-card p-5" aria-labelledby="guests">
      <h2 id="guests" class="text-lg">{guests.length > 0 ? counted(guests.length, 'guest', 'guests') : 'Guests'}</h2>
      {#if guests.length > 0}
        <MailingGuests {guests} letters={current?.letters} {faults} {at} onshow={(i) => (at = i)} onremove={remove} />
      {/if}
      <AddGuests {views} onadd={(added) => (guests = withAdded(guests, added))} />
    </section>
    <section class="space-y-4 rounded-2xl border border-line bg-card p-5" aria-label="Letter">
      {#if faults}<ProblemNote problem={faults} />{/if}
      <StartFromLetter letters={letters.letters} onchoose={startFrom} />
      <OfferChoice
        bind:offer
        items={choices(all).map((one) => (one.value === '' ? { ...one, name: 'choose what is offered' } : one))}
        {hosts}
        {faults}
        {today}
        {usualUntil}
      />
      <Field label="Subject" id="subject" mend={mendOf(faults, 'subject')}
        ><Input id="subject" autocomplete="off" bind:value={subject} /></Field
      >
      <Field label="Letter" id="body" mend={mendOf(faults, 'body')}
        ><Textarea id="body" rows={10} class="w-full" bind:value={body} /></Field
      >
      <Blanks blanks={letters.blanks} onchoose={(name) => (body = `${body}{{ ${name} }}`)} />
    </section>
  </div>

  <section class="space-y-3 rounded-2xl border border-line bg-card p-5" aria-labelledby="preview">
    <div class="flex flex-wrap items-center justify-between gap-3">
      <h2 id="preview" class="text-lg">Preview</h2>
      <ShownHow bind:how />
    </div>
    {#if current && chosen}
      <p role="status">{supplyInWords(current)}</p>
      {#if stands}<p role="status" class="rounded-lg border-l-4 border-brick bg-brick-tint px-4 py-2 text-brick-text">
          {stands}
        </p>{/if}
      <div class="flex flex-wrap items-center justify-between gap-3">
        <p>
          <span class="text-muted">Letter {at + 1} of {guests.length}, to</span>
          {chosen.name}
        </p>
        <div class="flex gap-2">
          <ActionButton class="py-1" disabled={at === 0} onclick={() => (at -= 1)}>Letter before</ActionButton>
          <ActionButton class="py-1" disabled={at >= guests.length - 1} onclick={() => (at += 1)}
            >Next letter</ActionButton
          >
        </div>
      </div>
      {#if current.shown}<ShownLetter letter={current.shown} {how} />{/if}
      {#if chosen.own}
        {@const own = chosen.own}
        <Field
          label="Subject for {chosen.name} alone"
          id="own-subject"
          mend={mendOf(faults, `guests[${String(at)}].own.subject`)}
          ><Input
            id="own-subject"
            autocomplete="off"
            bind:value={() => own.subject, (typed) => change(at, { own: { ...own, subject: typed ?? '' } })}
          /></Field
        >
        <Field
          label="Letter to {chosen.name} alone"
          id="own-body"
          mend={mendOf(faults, `guests[${String(at)}].own.body`)}
          ><Textarea
            id="own-body"
            rows={8}
            class="w-full"
            bind:value={() => own.body, (typed) => change(at, { own: { ...own, body: typed ?? '' } })}
          /></Field
        >
        <TextButton onclick={() => change(at, { own: null })}>Use the words of all again</TextButton>
      {:else}
        <TextButton onclick={() => change(at, { own: { subject, body } })}>Change this letter alone</TextButton>
      {/if}
      <div class="flex flex-wrap items-center gap-3 border-t border-line pt-4">
        <ActionButton kind="main" type="submit" disabled={sending.busy || stands !== undefined}
          >Send {counted(guests.length, 'letter', 'letters')}</ActionButton
        >
        <p class="text-fine text-muted">Each guest gets a mail of their own, with a link of their own.</p>
      </div>
    {:else}
      <p class="text-muted">
        {guests.length === 0
          ? 'Add guests, then write the letter.'
          : 'Choose a letter, or write a subject and a letter.'}
      </p>
    {/if}
  </section>
</form>
