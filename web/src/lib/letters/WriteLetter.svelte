<script lang="ts">
  import { goto } from '$app/navigation';
  import { Input, Select, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { WishKey } from '$lib/guest/WishKey';
  import { saveAs } from '$lib/pages/qr';
  import { counted } from '$lib/time/format';
  import { cityOf } from '$lib/time/clock';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Blanks from './Blanks.svelte';
  import { choiceOf, choices, obstacle, offerOf, type Offer } from './writing';

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

  let letterId = $state('');
  let subject = $state('');
  let body = $state('');
  let offer = $state.raw<Offer>({ kind: 'nothing', id: null });
  let preview = $state.raw<Schemas['LetterPreview'] | undefined>(undefined);
  let shown = $state<'text' | 'html'>('text');
  const looking = new Attempt();
  const sending = new Attempt();
  const key = new WishKey();
  const request = $derived({ guestId: guest.id, subject, body, offer });
  const faults = $derived(sending.problem ?? looking.problem);
  const stands = $derived(preview && obstacle(preview, offer));
  const mayBeOffered = $derived(hosts.filter((host) => host.mayOffer && host.kind === 'person'));

  function chooseLetter(id: string): void {
    letterId = id;
    const letter = letters.letters.find((one) => one.id === id)?.form;
    if (!letter) return;
    ({ subject, body } = letter);
    if (letter.patternId) setOffer(`pattern ${letter.patternId}`);
  }

  function setOffer(choice: string): void {
    const next = offerOf(choice, offer);
    offer = next.kind === 'pattern' ? { ...next, until: next.until ?? usualUntil } : next;
  }

  // Any change shows how it reads now; a moment's pause keeps half-typed words from asking.
  $effect(() => {
    const asked = $state.snapshot(request);
    if (asked.subject.trim() === '' || asked.body.trim() === '') return;
    const timer = setTimeout(() => {
      void looking.run(async () => {
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
    {#if letters.letters.length > 0}
      <Field label="Start from" id="from"
        ><Select
          id="from"
          placeholder=""
          bind:value={() => letterId, chooseLetter}
          items={[
            { value: '', name: 'an empty letter' },
            ...letters.letters.map((one) => ({
              value: one.id,
              name: one.form.isTeams ? one.form.name : `${one.form.name} (yours)`,
            })),
          ]}
        /></Field
      >
    {/if}
    <Field label="Offer" id="offer" mend={mendOf(faults, 'offer.id')}
      ><Select id="offer" placeholder="" bind:value={() => choiceOf(offer), setOffer} items={choices(all)} /></Field
    >
    {#if offer.kind === 'pattern'}
      <div class="grid gap-4 sm:grid-cols-2">
        <Field label="With" id="with" mend={mendOf(faults, 'times.lineUp')}
          ><Select
            id="with"
            placeholder=""
            bind:value={
              () => offer.lineUp?.[0]?.hostIds[0] ?? '',
              (id) => (offer = { ...offer, lineUp: id === '' ? null : [{ hostIds: [id], fill: 'inOrder' }] })
            }
            items={[
              { value: '', name: 'the pattern’s hosts' },
              ...mayBeOffered.map((host) => ({ value: host.id, name: host.name })),
            ]}
          /></Field
        >
        <Field label="Until" id="until" mend={mendOf(faults, 'offer.until')}
          ><Input
            id="until"
            type="date"
            min={today}
            bind:value={() => offer.until ?? '', (until) => (offer = { ...offer, until: until || undefined })}
          /></Field
        >
      </div>
    {/if}
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
      <Segments
        label="How it is shown"
        options={[
          { value: 'text', text: 'As text' },
          { value: 'html', text: 'Formatted' },
        ]}
        value={shown}
        onchoose={(how) => (shown = how)}
      />
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
      <article class="rounded-lg border border-line bg-paper p-4" aria-label="The letter as it will read">
        <h3 class="text-base">{preview.subject}</h3>
        {#if shown === 'text'}
          <p class="mt-2 wrap-anywhere whitespace-pre-line">{preview.text}</p>
        {:else}
          <iframe title="The letter, formatted" sandbox="" srcdoc={preview.html} class="mt-2 h-96 w-full"></iframe>
        {/if}
      </article>
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
