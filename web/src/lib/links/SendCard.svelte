<script lang="ts">
  import { Select, Textarea } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { cityOf } from '$lib/time/clock';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import { copyRich } from './copy';
  import { MOST_OF_MAILTO, mailtoOf } from './mailto';
  import type { LinkEditing } from './LinkEditing.svelte';
  import Choice from '$lib/ui/Choice.svelte';

  interface Props {
    link: LinkEditing;
    mayEdit: boolean;
    /** Books the one exact time for the guest, who gets the invitation straight away. */
    oninvite: (start: string) => void;
  }

  let { link, mayEdit, oninvite }: Props = $props();

  type Tab = 'text' | 'mail' | 'address';
  let tab = $state<Tab>('text');
  let word = $state('');
  let said = $state<string | undefined>(undefined);
  let fault = $state<string | undefined>(undefined);

  const tabs: readonly { value: Tab; name: string }[] = [
    { value: 'text', name: 'As text' },
    { value: 'mail', name: 'As email' },
    { value: 'address', name: 'Web address only' },
  ];
  const how = $derived(link.form.details.text);
  const { zone } = $derived(link.form.times);
  const theirs = $derived(link.form.guestZone);
  const zones = $derived(
    theirs === '' || theirs === zone
      ? [{ value: 'own', name: `${cityOf(zone)} time` }]
      : [
          { value: 'both', name: `${cityOf(theirs)} and ${cityOf(zone)} time` },
          { value: 'guest', name: `${cityOf(theirs)} time` },
          { value: 'own', name: `${cityOf(zone)} time` },
        ],
  );
  const mails = $derived(link.form.guests.map((guest) => guest.email.trim()).filter((email) => email !== ''));
  const only = $derived(
    link.offer.by === 'picked' && link.offer.picked.length === 1 ? link.offer.picked[0] : undefined,
  );
  const isOut = $derived(link.saved !== undefined && link.saved.row.outAt !== null);

  type Listing = 'each' | 'ranges' | 'best';
  const MOST_LISTED = 8;
  const listing = $derived<Listing>(
    how.mostListed !== null ? 'best' : (how.asRanges ?? link.offer.by !== 'picked') ? 'ranges' : 'each',
  );

  function list(next: Listing): void {
    setText({ asRanges: next === 'ranges', mostListed: next === 'best' ? MOST_LISTED : null });
  }

  function setText(change: Partial<Schemas['LinkText']>): void {
    link.setDetails({ text: { ...how, ...change } });
  }

  async function tell(done: boolean, words: string, refused: string): Promise<void> {
    [said, fault] = done ? [words, undefined] : [undefined, refused];
  }

  /** One press: it is saved and let out, and stands on the clipboard. */
  async function copy(): Promise<void> {
    // Without the web address nobody can open the link by it, so nothing goes out.
    const view = tab === 'text' && !how.withAddress ? await link.giveAsText() : await link.sendOut();
    if (!view) return;
    await link.reckon();
    const { text } = link;
    if (text)
      await tell(
        tab === 'address'
          ? await copyRich(text.address ?? '', text.address ?? '')
          : await copyRich(text.text, text.html),
        'Copied',
        'Your browser doesn’t allow it; select the text and copy it.',
      );
  }

  /** The mail as text, for the reader's own mail program (RFC 6068). */
  const mailto = $derived(
    mailtoOf(mails, link.form.title, [word.trim(), link.text?.text ?? ''].filter((part) => part !== '').join('\n\n')),
  );

  /** Guests can open it before the mail with its address is written. */
  async function openDraft(): Promise<void> {
    const view = await link.sendOut();
    if (view) location.assign(`/api/links/${view.row.id}/draft.eml?word=${encodeURIComponent(word.trim())}`);
  }

  async function openMailto(): Promise<void> {
    if (!(await link.sendOut())) return;
    await link.reckon();
    location.assign(mailto);
  }

  async function send(isAgain: boolean): Promise<void> {
    const view = await link.mail(word, isAgain);
    if (!view) return;
    word = '';
    await tell(true, `Sent to ${mails.join(', ')}. You can see it in Post.`, '');
  }
</script>

<section aria-label="How it goes out" class="rounded-2xl border border-line bg-card p-4">
  <div class="flex flex-wrap items-center justify-between gap-2">
    <div role="tablist" aria-label="How it goes out" class="flex gap-4">
      {#each tabs as one (one.value)}
        <button
          type="button"
          role="tab"
          id="tab-{one.value}"
          aria-controls="out-{one.value}"
          aria-selected={tab === one.value}
          class="min-h-9 border-b-2 {tab === one.value ? 'border-ink font-bold' : 'border-transparent text-muted'}"
          onclick={() => (tab = one.value)}>{one.name}</button
        >
      {/each}
    </div>
    {#if tab !== 'address'}
      <span class="w-60"
        ><Select
          aria-label="In whose time"
          placeholder=""
          classes={{ select: 'py-1' }}
          disabled={!mayEdit}
          value={zones.some((one) => one.value === how.zones) ? how.zones : 'own'}
          onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
            setText({ zones: event.currentTarget.value as Schemas['LinkZones'] })}
          items={zones}
        /></span
      >
    {/if}
  </div>
  <div role="tabpanel" id="out-{tab}" aria-labelledby="tab-{tab}" class="mt-2">
    {#if tab === 'address'}
      <p class="rounded-lg border border-line px-3 py-2 break-all" data-test="link-address">
        {link.text?.address ?? 'It works once the link is made, and stands here then.'}
      </p>
    {:else}
      {#if tab === 'mail'}
        <label class="mb-1 block text-sm text-muted" for="link-word">Message above the times (optional)</label>
        <Textarea id="link-word" rows={2} class="mb-2 w-full" maxlength={2000} disabled={!mayEdit} bind:value={word} />
      {/if}
      <pre
        class="rounded-lg border border-line px-3 py-2 font-sans text-sm whitespace-pre-wrap"
        data-test="link-text">{link.text?.text ?? ''}</pre>
      <div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm text-muted">
        <span class="w-36"
          ><Select
            aria-label="How times are listed"
            placeholder=""
            classes={{ select: 'py-1' }}
            disabled={!mayEdit}
            value={listing}
            onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
              list(event.currentTarget.value as Listing)}
            items={[
              { value: 'each', name: 'every time' },
              { value: 'ranges', name: 'as ranges' },
              { value: 'best', name: `the best ${MOST_LISTED}` },
            ]}
          /></span
        >
        <Choice class="inline-flex min-h-8"
          ><input
            type="checkbox"
            class="rounded border-edge"
            disabled={!mayEdit}
            bind:checked={() => how.withAddress, (withAddress) => setText({ withAddress })}
          /> include the web address</Choice
        >
        <span class="w-40"
          ><Select
            aria-label="By which clock"
            placeholder=""
            classes={{ select: 'py-1' }}
            disabled={!mayEdit}
            value={how.clock ?? ''}
            onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
              setText({ clock: (event.currentTarget.value || null) as Schemas['LinkText']['clock'] })}
            items={[
              { value: '', name: 'their usual clock' },
              { value: 'h24', name: '24 hours' },
              { value: 'h12', name: 'am and pm' },
            ]}
          /></span
        >
      </div>
    {/if}
    {#if mayEdit && !link.isOver}
      <div class="mt-2 flex flex-wrap items-center gap-2">
        {#if tab === 'mail'}
          <ActionButton disabled={link.busy || mails.length === 0} onclick={() => void send(false)}
            >Send{mails.length > 0 ? ` to ${mails.join(', ')}` : ''}</ActionButton
          >
          {#if isOut}<ActionButton disabled={link.busy || mails.length === 0} onclick={() => void send(true)}
              >Ask again</ActionButton
            >{/if}
          {#if mails.length === 0}<span class="text-sm text-muted">Give the guest’s email above.</span>{/if}
          <ActionButton disabled={link.busy} onclick={() => void openDraft()}>Save as a draft (.eml)</ActionButton>
          {#if mailto.length <= MOST_OF_MAILTO}<ActionButton disabled={link.busy} onclick={() => void openMailto()}
              >Open in my mail program</ActionButton
            >{/if}
          {#if only && mails.length > 0}<ActionButton kind="quiet" disabled={link.busy} onclick={() => oninvite(only)}
              >Book this time now and send the invitation</ActionButton
            >{/if}
        {:else}
          <ActionButton disabled={link.busy} onclick={() => void copy()}>Copy</ActionButton>
        {/if}
        <span class="text-sm" role="status">{said ?? ''}</span>
      </div>
    {/if}
    {#if fault}<p class="mt-1 text-sm text-brick" role="alert">{fault}</p>{/if}
  </div>
</section>
