<script lang="ts">
  import { api } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import AnswerAsked from '$lib/bookings/AnswerAsked.svelte';
  import CancelModal from '$lib/bookings/CancelModal.svelte';
  import HostsOfBooking from '$lib/bookings/HostsOfBooking.svelte';
  import IncomingList from '$lib/bookings/IncomingList.svelte';
  import NotesOfBooking from '$lib/bookings/NotesOfBooking.svelte';
  import OutcomeNote from '$lib/bookings/OutcomeNote.svelte';
  import PostOfBooking from '$lib/bookings/PostOfBooking.svelte';
  import { endInWords, replyInWords } from '$lib/bookings/reply';
  import WordsToGuests from '$lib/bookings/WordsToGuests.svelte';
  import OutsideNote from '$lib/calendars/OutsideNote.svelte';
  import BringAlong from '$lib/guest/BringAlong.svelte';
  import { askAnew } from '$lib/live/anew';
  import MovePanel from '$lib/moving/MovePanel.svelte';
  import { rangeOf } from '$lib/moving/range';
  import { answerInWords } from '$lib/questions/words';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, dayMonth, dayName, fullDate, lengthOf, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const detail = $derived(data.detail);
  const row = $derived(detail.row);
  const zone = $derived(data.me.zone);
  const path = $derived({ id: row.id });
  const minutes = $derived((Date.parse(row.end) - Date.parse(row.start)) / 60_000);
  const mayMove = $derived(row.mayChange && Date.parse(row.start) > Date.parse(detail.now));
  const isBegun = $derived(Date.parse(row.start) <= Date.parse(detail.now));
  /** Whoever may change a booking may note what became of it, and write, once it is over, too. */
  const mayNote = $derived(detail.mayNote && !row.cancelledAt);
  const nextOne = $derived.by(() => {
    const query = new URLSearchParams({ [row.isOfLink ? 'link' : 'page']: row.pageId });
    query.set('hosts', detail.hosts.map((host) => host.id).join(','));
    if (!row.isAmongOurselves) {
      query.set('name', row.guestName);
      query.set('email', row.guestEmail);
      query.set('zone', row.guestZone);
    }
    return `/work/links/new?${query}`;
  });
  const reply = $derived(replyInWords(row, zone));
  let moving = $state(false);
  let cancelling = $state(false);
  let writing = $state(false);
  let told = $state('');
  const wished = new Attempt();

  /** Of one booking so many are invited. */
  const MOST_ALONG = 10;

  const load = async () =>
    (
      await must(
        api.GET('/api/bookings/{id}/openings', { params: { path, query: rangeOf(detail.firstDate, detail.lastDate) } }),
      )
    ).openings;
  const move = (start: string) => must(api.POST('/api/bookings/{id}/move', { params: { path }, body: { start } }));

  async function grant(start: string): Promise<void> {
    await wished.run(() => move(start));
    await askAnew();
  }

  function done(): void {
    moving = false;
    cancelling = false;
    void askAnew();
  }
</script>

<svelte:head><title>{row.guestName} – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/bookings">Bookings</a></p>
<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <h1 class="text-page">{row.isAmongOurselves ? row.page : row.guestName}</h1>
  <div class="flex flex-wrap gap-3">
    {#if row.mayChange}
      {#if mayMove}<ActionButton disabled={moving} onclick={() => (moving = true)}>Move</ActionButton>{/if}
      <ActionButton onclick={() => (cancelling = true)}>Cancel</ActionButton>
    {/if}
    {#if mayNote && !row.isAmongOurselves}<ActionButton onclick={() => (writing = true)}>Write</ActionButton>{/if}
    {#if data.me.isCoordinator}<ActionButton href={nextOne}>Book the next one</ActionButton>{/if}
  </div>
</header>
{#if told}<p role="status" class="mb-3 text-sea-text">{told}</p>{/if}

<div class="grid items-start gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,440px)]">
  <div class="space-y-5">
    {#if row.waitsUntil && row.mayChange && !row.cancelledAt}
      <AnswerAsked
        guest={row.guestName}
        waitsUntil={row.waitsUntil}
        {zone}
        now={detail.now}
        firstDate={detail.firstDate}
        {load}
        accept={() => must(api.POST('/api/bookings/{id}/accept', { params: { path } }))}
        decline={(form) => must(api.POST('/api/bookings/{id}/decline', { params: { path }, body: form }))}
        onanswered={done}
      />
    {/if}
    {#each row.outside as outside (outside.id)}<OutsideNote {outside} booking={row.guestName} {zone} />{/each}

    <section class="rounded-2xl border border-line bg-card p-5" aria-labelledby="appointment">
      <h2 id="appointment" class="text-xl">
        {fullDate(dateIn(row.start, zone))}, {timeOf(row.start, zone)} – {timeOf(row.end, zone)}
      </h2>
      <p class="text-muted">
        {cityOf(zone)} time, {lengthOf(minutes)}{row.guestZone === zone
          ? ''
          : `; ${timeOf(row.start, row.guestZone)} in ${cityOf(row.guestZone)}, where the guest is`}
      </p>
      {#if row.cancelledAt}
        <p class="mt-2 font-semibold text-brick">{endInWords(row)} ({dayMonth(dateIn(row.cancelledAt, zone))})</p>
      {:else if row.waitsUntil}
        <p class="mt-2 font-semibold">
          Asked for; waits until {dayName(dateIn(row.waitsUntil, zone))}, {timeOf(row.waitsUntil, zone)}
        </p>
      {/if}
      {#if isBegun && !row.cancelledAt && !row.waitsUntil}<OutcomeNote {row} mayChange={mayNote} />{/if}
      {#each row.flags as flag (flag)}
        <p class="mt-2 border-l-4 border-ink bg-lane px-3 py-1.5"><strong>Flagged:</strong> {flag}</p>
      {/each}
      {#if reply && !row.cancelledAt}
        <div class="mt-2 flex flex-wrap items-center gap-3">
          <p class={row.reply === 'declined' || row.wishStart ? 'font-semibold text-brick' : 'text-sea-text'}>
            {row.guestName}
            {reply}
          </p>
          {#if row.wishStart && mayMove}
            {@const wish = row.wishStart}
            <ActionButton disabled={wished.busy} onclick={() => void grant(wish)}>Move</ActionButton>
          {/if}
        </div>
        {#if wished.problem}<div class="mt-2"><ProblemNote problem={wished.problem} /></div>{/if}
      {/if}
      <dl class="mt-4 grid grid-cols-[minmax(92px,auto)_1fr] gap-x-4 gap-y-1.5">
        <dt class="text-muted">Page</dt>
        <dd>
          <a
            class="underline decoration-line-strong underline-offset-4"
            href="/work/{row.isOfLink ? 'links' : 'pages'}/{row.pageId}">{row.page}</a
          >{row.place ? `, ${row.place}` : ''}
        </dd>
        <dt class="text-muted">Host</dt>
        <dd>
          <HostsOfBooking
            session={row.sessionId}
            hosts={detail.hosts}
            guests={row.isAmongOurselves ? '' : row.places > 1 ? 'everyone who comes' : row.guestName}
            mayChange={row.mayChange && data.me.isCoordinator}
            onchanged={(what) => (told = what)}
          />
        </dd>
        {#if row.places > 1}
          <dt class="text-muted">Session</dt>
          <dd>
            <a class="underline decoration-line-strong underline-offset-4" href="/work/bookings/session/{row.sessionId}"
              >everyone who comes</a
            >
          </dd>
        {/if}
        {#if row.isAmongOurselves}
          <dt class="text-muted">Arranged by</dt>
          <dd>{row.guestName}</dd>
        {:else}
          <dt class="text-muted">Guest</dt>
          <dd>
            {#if row.guestId}<a
                class="flex min-h-6 items-center underline decoration-line-strong underline-offset-4"
                href="/work/guests/{row.guestId}">{row.guestName}</a
              >{/if}
            {#if row.guestEmail === ''}<span class="text-muted">no email</span>{:else}<a
                class="flex min-h-6 items-center wrap-anywhere underline decoration-line-strong underline-offset-4"
                href="mailto:{row.guestEmail}">{row.guestEmail}</a
              >{/if}
          </dd>
        {/if}
        {#if row.bookerName !== ''}
          <dt class="text-muted">Booked by</dt>
          <dd>
            {#if row.bookerId}<a
                class="underline decoration-line-strong underline-offset-4"
                href="/work/guests/{row.bookerId}">{row.bookerName}</a
              >{:else}{row.bookerName}{/if},
            <a class="wrap-anywhere underline decoration-line-strong underline-offset-4" href="mailto:{row.bookerEmail}"
              >{row.bookerEmail}</a
            >
          </dd>
        {/if}
        {#if row.party > 1}
          <dt class="text-muted">People</dt>
          <dd>{row.party}</dd>
        {/if}
        {#each detail.answers as answer (answer.key)}
          <dt class="text-muted">{answer.words}</dt>
          <dd class="wrap-anywhere whitespace-pre-line">{answerInWords(answer)}</dd>
        {/each}
        {#if detail.companions.length > 0 && !mayMove}
          <dt class="text-muted">Brings</dt>
          <dd>
            {detail.companions.map((one) => (one.name === '' ? one.email : `${one.name} (${one.email})`)).join(', ')}
          </dd>
        {/if}
        {#if detail.hostWords}
          <dt class="text-muted">For us</dt>
          <dd class="whitespace-pre-line">{detail.hostWords}</dd>
        {/if}
        <dt class="text-muted">Booked</dt>
        <dd>{dayMonth(dateIn(row.bookedAt, zone))}, {timeOf(row.bookedAt, zone)}</dd>
      </dl>
    </section>

    {#if moving && mayMove}
      <MovePanel
        {zone}
        otherZone={row.guestZone}
        now={detail.now}
        firstDate={detail.firstDate}
        told="{row.guestName} and {row.hosts.join(', ')} will be told."
        {load}
        {move}
        onmoved={done}
        onclose={() => (moving = false)}
      />
    {/if}

    {#if mayMove && !row.isAmongOurselves}
      <BringAlong
        isOwnCard
        title="Others who come along"
        about="Nobody so far. Whoever you add gets an invitation of their own."
        save={(form) => must(api.PUT('/api/bookings/{id}/companions', { params: { path }, body: form }))}
        people={detail.companions}
        most={row.places > 1 ? row.places - 1 : MOST_ALONG}
        mostMailed={MOST_ALONG}
        waiting={[]}
        {...row.places > 1 ? { party: row.party } : {}}
        onchanged={() => void askAnew()}
      />
    {/if}

    <section class="rounded-2xl border border-line bg-card p-5" aria-labelledby="answers">
      <h2 id="answers" class="mb-1 text-lg">Answers</h2>
      <IncomingList incoming={detail.incoming} {zone} />
    </section>
  </div>

  <div class="space-y-5">
    <NotesOfBooking booking={row.id} notes={detail.notes} {zone} />
    <PostOfBooking post={detail.post} {zone} />
    {#if detail.done.length > 0}
      <section class="rounded-2xl border border-line bg-card p-5" aria-labelledby="done">
        <h2 id="done" class="mb-1 text-lg">
          Record <a
            class="ml-2 font-sans text-fine font-normal underline underline-offset-4"
            href="/work/record?subject={row.id}">By day</a
          >
        </h2>
        <ul>
          {#each detail.done as line (line.at + line.what)}
            <li class="border-t border-line py-1.5 text-sm first:border-t-0">
              {line.what}<span class="block text-muted"
                >{line.by}, {dayMonth(dateIn(line.at, zone))}, {timeOf(line.at, zone)}</span
              >
            </li>
          {/each}
        </ul>
      </section>
    {/if}
  </div>
</div>

{#if cancelling}
  <CancelModal
    booking="the booking of {row.guestName}"
    reader={row.guestName}
    cancel={(word) => must(api.POST('/api/bookings/{id}/cancel', { params: { path }, body: { word } }))}
    oncancelled={done}
    onclose={() => (cancelling = false)}
  />
{/if}
{#if writing}
  <WordsToGuests
    title="Write to {row.guestName}"
    about="They get a mail with the time and their private link. What they answer comes back to this booking."
    send={(word, key) =>
      must(
        api.POST('/api/bookings/{id}/words', {
          params: { path, header: { 'Idempotency-Key': key } },
          body: { word },
        }),
      )}
    onsent={() => {
      [writing, told] = [false, `Sent to ${row.guestName}.`];
      void askAnew();
    }}
    onclose={() => (writing = false)}
  />
{/if}
