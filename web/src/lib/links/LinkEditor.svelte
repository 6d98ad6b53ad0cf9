<script lang="ts">
  import { goto, replaceState } from '$app/navigation';
  import { Badge, Toast } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { watchChanges } from '$lib/live/changes';
  import LeaveGuard from '$lib/pages/LeaveGuard.svelte';
  import { missingPlace } from '$lib/pages/missingPlace';
  import PlaceMissing from '$lib/pages/PlaceMissing.svelte';
  import RecordList from '$lib/record/RecordList.svelte';
  import DarkPanel from '$lib/supply/DarkPanel.svelte';
  import { DarkQuestion } from '$lib/supply/DarkQuestion.svelte';
  import RelaxationsPanel from '$lib/supply/RelaxationsPanel.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import BookByHand from './BookByHand.svelte';
  import KeptCard from './KeptCard.svelte';
  import LinkBoard from './LinkBoard.svelte';
  import LinkDetails from './LinkDetails.svelte';
  import type { LinkEditing } from './LinkEditing.svelte';
  import LinkLineUp from './LinkLineUp.svelte';
  import OfferedTimes from './OfferedTimes.svelte';
  import OfferSentence from './OfferSentence.svelte';
  import { elsewhere } from '$lib/supply/relaxations';
  import { takenByLink } from './relaxing';
  import SendCard from './SendCard.svelte';
  import type { LinkSetting } from './setting';
  import TheirTimes from './TheirTimes.svelte';
  import SuggestedTimes from './SuggestedTimes.svelte';
  import WhoFor from './WhoFor.svelte';
  import CameOfIt from './CameOfIt.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { dayAndTime, offerInWords, standing, states } from './words';

  interface Props {
    link: LinkEditing;
    setting: LinkSetting;
    me: { hostId: string | null; now: string };
    today: string;
    known: Schemas['KnownGuest'][];
    /** Lengths that the team's links took last. */
    lately: readonly number[];
  }

  let { link, setting, me, today, known, lately }: Props = $props();

  const { hosts } = $derived(setting);
  const others = $derived(
    link.hostIds.flatMap((id) =>
      hosts.filter((host) => host.id === id && host.kind === 'person' && host.id !== me.hostId),
    ),
  );
  const mayEdit = $derived(
    link.hostIds.every((id) => hosts.find((host) => host.id === id)?.mayOffer ?? false) &&
      link.saved?.row.state !== 'revoked',
  );
  const missing = $derived(missingPlace(link.form.placeKind, link.form.place, true));
  const isOurs = $derived(link.form.details.isAmongOurselves);
  let record = $state.raw<Schemas['RecordLine'][]>([]);
  let booking = $state<string | undefined>(undefined);
  // What is set takes one line, so that times and the text that goes out stand in view; a press opens it again.
  let unfolded = $state<boolean | undefined>(undefined);
  const isFolded = $derived(
    (unfolded === false || (unfolded === undefined && link.saved !== undefined)) &&
      link.form.title.trim() !== '' &&
      link.problem?.errors === undefined &&
      link.countProblem?.errors === undefined,
  );
  const inWords = $derived(offerInWords(link.form, (id) => hosts.find((host) => host.id === id)?.name ?? ''));
  /** Times that can't be held, where a hold was refused. */
  const refusedHolds = $derived(
    link.problem?.type === 'urn:loose-lantern:cant-hold' && Array.isArray(link.problem['starts'])
      ? (link.problem['starts'] as string[])
      : [],
  );
  /** Whether its times are out as text, though no guest can open it. */
  const isGiven = $derived(link.saved?.row.state === 'draft' && link.saved.row.givenAt !== null);
  let revoking = $state(false);
  const dark = new DarkQuestion(({ date, fromMinute, toMinute }) =>
    must(
      api.POST('/api/links/dark', {
        body: {
          times: $state.snapshot(link.form.times),
          of: link.id ?? null,
          date,
          fromMinute,
          toMinute,
          guests: $state.snapshot(link.form.guests),
        },
      }),
    ),
  );

  // Any change shows right away what it does; a moment's pause keeps half-typed numbers from asking.
  $effect(() => {
    JSON.stringify([link.form, link.id]);
    const timer = setTimeout(() => void link.reckon().then(() => dark.askAgain()), 250);
    return () => clearTimeout(timer);
  });
  // Once it is saved, by whichever press, it has an address of its own, which can be reloaded and sent to a colleague.
  // The screen stays: whoever made it goes on in it.
  $effect(() => {
    const { id } = link;
    if (id !== undefined && !location.pathname.endsWith(id)) replaceState(`/work/links/${id}`, {});
  });
  // Whatever was saved or came about stands in its record.
  $effect(() => {
    const subject = link.saved?.row.id;
    if (subject !== undefined)
      void must(api.GET('/api/record', { params: { query: { subject } } })).then(
        (lines) => (record = lines),
        () => undefined,
      );
  });
  onMount(() =>
    watchChanges('/api/changes', () => {
      void link.refresh();
      void link.reckon();
    }),
  );

  async function keep(): Promise<void> {
    if (await link.save()) link.told = link.isOut ? 'Changed. The guest sees it as it is now.' : 'Saved as a draft.';
  }

  async function make(): Promise<void> {
    if (await link.sendOut()) link.told = 'Made. Copy the text or the address, or send it as an email.';
  }

  async function remove(): Promise<void> {
    if (await link.remove()) await goto('/work/links', { replaceState: true });
  }
</script>

<svelte:head
  ><title
    >{link.guestName ? `Times for ${link.guestName}` : isOurs ? 'A time among ourselves' : 'A new link'} – Loose Lantern</title
  ></svelte:head
>
<LeaveGuard
  isTouched={link.isChanged &&
    (link.saved !== undefined ||
      link.form.guests.length > 0 ||
      link.offer.picked.length > 0 ||
      link.offer.painted.length > 0)}
/>

<header
  class="z-30 -mx-1 mb-1.5 flex flex-wrap items-start justify-between gap-3 bg-paper px-1 py-2 md:sticky md:top-0 md:flex-nowrap"
>
  <div class="flex min-h-10 min-w-0 flex-wrap items-center gap-x-3.5 gap-y-1">
    <h1 class="text-page">
      {isOurs ? 'A time among ourselves' : link.guestName ? `Times for ${link.guestName}` : 'Times for someone'}
    </h1>
    {#if !link.isOver}<span aria-live="polite" data-test="link-total" class={link.countProblem ? 'opacity-50' : ''}
        ><strong class="font-heading text-count leading-none">{link.supply?.total ?? '…'}</strong>
        {link.supply?.total === 1 ? 'opening' : 'openings'}</span
      >{/if}
    {#if link.saved}<Badge
        class="rounded-full border border-dashed border-edge bg-transparent px-3 py-0.5 text-sm font-semibold text-ink"
        data-test="link-state">{states[link.saved.row.state]}</Badge
      >{/if}
    {#if others.length > 0}<span
        class="rounded-full border border-violet bg-violet-tint px-3 py-0.5 text-sm text-ink"
        data-test="acting-for"
        >acting for <strong title={others.map((host) => host.name).join(', ')}
          >{others.map((host) => (others.length > 1 ? host.name.split(' ')[0] : host.name)).join(', ')}</strong
        ></span
      >{/if}
    {#if link.form.details.startedFrom}<span class="text-sm text-muted"
        >started from {link.form.details.startedFrom}</span
      >{/if}
    {#if link.saved && link.saved.row.state !== 'draft'}<span class="text-sm text-muted"
        >{standing(link.saved.row, link.supply?.now ?? me.now, link.form.times.zone)}</span
      >{/if}
  </div>
  <div class="flex flex-wrap gap-2 md:shrink-0 md:flex-nowrap">
    {#if link.saved && !isOurs}<ActionButton href="/work/links/new?link={link.saved.row.id}">Repeat</ActionButton>{/if}
    {#if mayEdit && link.saved?.row.state === 'draft' && !isGiven}<ActionButton
        kind="quiet"
        disabled={link.busy}
        onclick={() => void remove()}>Delete draft</ActionButton
      >{/if}
    {#if mayEdit && (link.isOut || isGiven)}<ActionButton onclick={() => (revoking = true)}>Revoke</ActionButton>{/if}
    {#if mayEdit && (link.saved === undefined || link.saved.row.state === 'draft')}<ActionButton
        disabled={link.busy}
        onclick={() => void keep()}>Save as draft</ActionButton
      >{/if}
    {#if mayEdit && link.saved && link.saved.row.state !== 'draft' && !link.isOver}
      <ActionButton kind="main" disabled={link.busy || !link.isChanged} onclick={() => void keep()}
        >Save changes</ActionButton
      >
    {:else if mayEdit && !link.isOver}
      <ActionButton kind="main" disabled={link.busy} onclick={() => void make()}>Make the link</ActionButton>
    {/if}
  </div>
</header>

{#if !mayEdit && link.saved?.row.state !== 'revoked' && link.hostIds.length > 0}<p
    class="mb-3 rounded-lg border-l-4 border-edge bg-lane px-4 py-2"
    data-test="not-let"
  >
    Not everyone in the line-up lets you offer their time. They can change that under “You”, “Acting for me”.
  </p>{/if}
{#if link.problem}
  <div class="mb-3">
    <ProblemNote problem={link.problem}>
      {#if refusedHolds.length > 0}<ul class="list-disc pl-5">
          {#each refusedHolds as start (start)}<li>{dayAndTime(start, link.form.times.zone)}</li>{/each}
        </ul>{/if}
    </ProblemNote>
  </div>
{/if}
{#if mayEdit && missing && !link.isOver && link.form.title.trim() !== '' && (!link.isOut || link.isChanged)}
  <PlaceMissing words={missing} />
{/if}
{#if link.isOut && link.supply && link.supply.total === 0 && !link.isChanged}
  <p
    class="mb-3 flex flex-wrap items-center gap-3 rounded-lg border-l-4 border-brick bg-brick-tint px-4 py-2 text-brick-text"
    role="status"
  >
    None of the times is open any more; the guest would find nothing.
    {#if mayEdit && link.supply.suggestions.length > 0}
      <ActionButton
        class="py-1"
        onclick={() => {
          link.setOffer({
            by: 'picked',
            picked: (link.supply?.suggestions ?? []).map((suggestion) => suggestion.start),
          });
          void keep();
        }}>Offer {link.supply.suggestions.length} others</ActionButton
      >
    {/if}
  </p>
{/if}

<div class="space-y-3">
  {#if link.isOver || (link.saved?.row.bookings.length ?? 0) > 0}
    <CameOfIt {link} {mayEdit} now={link.supply?.now ?? me.now} />
  {/if}
  {#if !link.isOver && link.saved && link.saved.row.suits > 0}
    <TheirTimes
      {link}
      {mayEdit}
      nameOf={(id) => hosts.find((host) => host.id === id)?.name ?? ''}
      onbooked={() => {
        link.told = 'Booked.';
        void link.refresh();
      }}
    />
  {/if}
  {#if !link.isOver}
    <fieldset disabled={!mayEdit} class="space-y-2">
      {#if isFolded}
        <p
          class="flex flex-wrap items-center gap-x-3 rounded-xl border border-line bg-card px-3 py-1.5"
          data-test="offer-in-words"
        >
          <span class="min-w-0 flex-1">{inWords}</span>
          <TextButton class="min-h-8" onclick={() => (unfolded = true)}>Change</TextButton>
        </p>
      {:else}
        <LinkLineUp {link} {hosts} {mayEdit} />
        <WhoFor {link} {known} />
        <OfferSentence {link} {today} {lately} />
      {/if}
    </fieldset>
    <div class="grid items-start gap-3 lg:grid-cols-[minmax(0,1fr)_340px]">
      <div class="min-w-0 space-y-3">
        <LinkBoard {link} {dark} {today} {mayEdit} onchanged={() => (unfolded = false)} />
        <DarkPanel question={dark} />
        {#if mayEdit && link.offer.by === 'picked'}<SuggestedTimes
            {link}
            nameOf={(id) => hosts.find((host) => host.id === id)?.name ?? ''}
          />{/if}
      </div>
      <SendCard {link} {mayEdit} oninvite={(start) => (booking = start)} />
    </div>
    <div class="grid items-start gap-3 lg:grid-cols-[1.3fr_1fr]">
      <OfferedTimes {link} {mayEdit} onbook={(start) => (booking = start)} />
      <div class="space-y-3">
        <KeptCard {link} {mayEdit} now={link.supply?.now ?? me.now} />
        <RelaxationsPanel
          relaxations={link.relaxations}
          elsewhere={(relaxation) => elsewhere(relaxation, false)}
          {mayEdit}
          ontake={(relaxation) => (link.form = takenByLink($state.snapshot(link.form), relaxation))}
        />
      </div>
    </div>
    <LinkDetails
      {link}
      {hosts}
      desks={setting.desks}
      calendars={setting.calendars}
      {mayEdit}
      onpattern={(name) => link.keepAsPattern(name)}
    />
  {/if}
  {#if record.length > 0}
    <section aria-labelledby="link-record" class="rounded-2xl border border-line bg-card p-4">
      <h2 id="link-record" class="mb-1 text-part">Record</h2>
      <RecordList lines={record} zone={link.form.times.zone} />
    </section>
  {/if}
</div>

{#if booking}
  <BookByHand
    {link}
    start={booking}
    onbooked={() => {
      booking = undefined;
      link.told = 'Booked.';
      void link.refresh();
    }}
    onclose={() => (booking = undefined)}
  />
{/if}
{#if revoking}
  <Dialog title="Revoke this link?" onclose={() => (revoking = false)}>
    <p>
      {isGiven
        ? 'Its times went out as text, so tell whoever has them yourself.'
        : 'Whoever opens it reads that the times were withdrawn.'} Held times are freed; bookings stay. This can’t be undone,
      but you can repeat the link.
    </p>
    <div class="mt-4 flex justify-end gap-3">
      <ActionButton kind="quiet" onclick={() => (revoking = false)}>Cancel</ActionButton>
      <ActionButton kind="main" onclick={() => void link.revoke().then(() => (revoking = false))}
        >Revoke it</ActionButton
      >
    </div>
  </Dialog>
{/if}
<div aria-live="polite" class="fixed right-6 bottom-6 z-50">
  {#if link.told}<Toast dismissable class="border border-line bg-card text-ink" onclose={() => (link.told = undefined)}
      >{link.told}</Toast
    >{/if}
</div>
