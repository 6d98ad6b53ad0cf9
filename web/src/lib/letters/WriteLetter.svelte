<script lang="ts">
  import { goto } from '$app/navigation';
  import { Input, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { Looking } from '$lib/api/Looking.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { WishKey } from '$lib/guest/WishKey';
  import { saveAs } from '$lib/pages/qr';
  import { counted } from '$lib/time/format';
  import { cityOf } from '$lib/time/clock';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Blanks from './Blanks.svelte';
  import OfferChoice from './OfferChoice.svelte';
  import ShownHow from './ShownHow.svelte';
  import ShownLetter from './ShownLetter.svelte';
  import StartFromLetter from './StartFromLetter.svelte';
  import { choices, obstacle, ofPattern, type Offer } from './writing';

  interface Props {
    guest: Schemas['GuestDetail'];
    letters: Schemas['LettersAnswer'];
    all: Schemas['LetterChoices'];
    hosts: Schemas['HostView'][];
    /** Today, and two weeks from then. */
    today: string;
    usualUntil: string;
  }

  let { guest, letters, all, hosts, today, usualUntil }: Props = $props();

  let subject = $state('');
  let body = $state('');
  let offer = $state.raw<Offer>({ kind: 'nothing', id: null });
  let preview = $state.raw<Schemas['LetterPreview'] | undefined>(undefined);
  let shown = $state<'text' | 'html'>('text');
  const looking = new Looking();
  const sending = new Attempt();
  const key = new WishKey();
  const request = $derived({ guestId: guest.id, subject, body, offer });
  const faults = $derived(sending.problem ?? looking.problem);
  const stands = $derived(preview && obstacle(preview, offer));

  function startFrom(letter: Schemas['LetterForm']): void {
    ({ subject, body } = letter);
    if (letter.patternId) offer = ofPattern(letter.patternId, offer, usualUntil);
  }

  // Any change shows how it reads now; a moment's pause keeps half-typed words from asking.
  $effect(() => {
    const asked = $state.snapshot(request);
    if (asked.subject.trim() === '' || asked.body.trim() === '') return;
    const timer = setTimeout(() => {
      void looking.look(async () => {
        preview = await must(api.POST('/api/letters/preview', { body: asked }));
      });
    }, 350);
    return () => clearTimeout(timer);
  });

  const withKey = () => ({
    params: { header: { 'Idempotency-Key': key.keyFor(JSON.stringify(request)) } },
    body: request,
  });

  async function send(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const isDone = await sending.run(() => must(api.POST('/api/letters/send', withKey())));
    if (isDone) await goto(`/work/guests/${guest.id}`);
  }

  async function draft(): Promise<void> {
    await sending.run(async () => {
      const file = await must(api.POST('/api/letters/draft.eml', { ...withKey(), parseAs: 'blob' }));
      saveAs('letter.eml', file as unknown as Blob);
    });
  }
</script>

<form novalidate class="grid items-start gap-5 lg:grid-cols-2" onsubmit={(event) => void send(event)}>
  <section class="space-y-4 rounded-2xl border border-line bg-card p-5" aria-label="Letter">
    {#if faults}<ProblemNote problem={faults} />{/if}
    <StartFromLetter letters={letters.letters} onchoose={startFrom} />
    <OfferChoice bind:offer items={choices(all)} {hosts} {faults} {today} {usualUntil} />
    <Field label="Subject" id="subject" mend={mendOf(faults, 'subject')}
      ><Input id="subject" autocomplete="off" bind:value={subject} /></Field
    >
    <Field label="Letter" id="body" mend={mendOf(faults, 'body')}
      ><Textarea id="body" rows={12} class="w-full" bind:value={body} /></Field
    >
    <Blanks blanks={letters.blanks} onchoose={(name) => (body = `${body}{{ ${name} }}`)} />
  </section>

  <section class="space-y-3 rounded-2xl border border-line bg-card p-5" aria-labelledby="preview">
    <div class="flex flex-wrap items-center justify-between gap-3">
      <h2 id="preview" class="text-lg">Preview</h2>
      <ShownHow bind:how={shown} />
    </div>
    {#if preview}
      <p class="text-fine text-muted">
        {preview.to ? `To ${preview.to}` : 'This guest has no email.'}{preview.openings === null
          ? ''
          : `; ${counted(preview.openings, 'opening', 'openings')}, times in ${cityOf(preview.zone)}`}
      </p>
      {#if stands}<p role="status" class="rounded-lg border-l-4 border-brick bg-brick-tint px-4 py-2 text-brick-text">
          {stands}
        </p>{/if}
      <ShownLetter letter={preview} how={shown} />
      <div class="flex flex-wrap items-center gap-3">
        <ActionButton
          kind="main"
          type="submit"
          disabled={sending.busy || looking.busy || stands !== undefined || preview.to === ''}>Send letter</ActionButton
        >
        <ActionButton disabled={sending.busy || looking.busy || stands !== undefined} onclick={() => void draft()}
          >Download as a draft</ActionButton
        >
      </div>
      {#if offer.kind === 'pattern'}<p class="text-fine text-muted">
          Sending or downloading makes the link, and the guest can use it from then on.
        </p>{/if}
    {:else}
      <p class="text-muted">Choose a letter, or write a subject and a letter.</p>
    {/if}
  </section>
</form>
