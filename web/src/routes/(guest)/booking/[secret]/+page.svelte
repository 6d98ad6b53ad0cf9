<script lang="ts">
  import '../../../../guest.css';
  import { putOnClipboard, type Copied } from '$lib/ui/clipboard';
  import { guestApi } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import CancelModal from '$lib/bookings/CancelModal.svelte';
  import BringAlong from '$lib/guest/BringAlong.svelte';
  import { beside, inBrackets } from '$lib/guest/beside';
  import { endedInWords } from '$lib/guest/ended';
  import { askAnew } from '$lib/live/anew';
  import MovePanel from '$lib/moving/MovePanel.svelte';
  import { rangeOf } from '$lib/moving/range';
  import { cityOf, ownZone, sameClock } from '$lib/time/clock';
  import { dateIn, dayName, fullDate, lengthOf, timeOf } from '$lib/time/format';
  import { onMount } from 'svelte';
  import { tellHeight } from '$lib/guest/frame';
  import PageHead from '$lib/guest/PageHead.svelte';
  import { placeWords } from '$lib/guest/place';
  import { NUMBER_TO_RING } from '$lib/questions/words';
  import ChangeAnswers from '$lib/questions/ChangeAnswers.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import type { PageProps } from './$types';
  import { say } from '$lib/words/say.svelte';

  let { data }: PageProps = $props();

  const booking = $derived(data.booking);
  const { questions, answers: given } = $derived(booking);
  const start = $derived(booking.start);
  const minutes = $derived((Date.parse(booking.end) - Date.parse(booking.start)) / 60_000);
  const number = $derived(given.find((answer) => answer.key === NUMBER_TO_RING)?.text);
  const place = $derived(
    booking.placeKind === 'video' && booking.place === ''
      ? say('place.video-follows')
      : placeWords(booking.placeKind, booking.place, booking.hostsRing, number),
  );
  const over = $derived(Date.parse(booking.end) <= Date.parse(booking.now));
  const begun = $derived(Date.parse(booking.start) <= Date.parse(booking.now));
  const stands = $derived(!booking.cancelledAt && !over);
  const isBefore = (until: string | null): boolean => until !== null && Date.parse(booking.now) < Date.parse(until);
  const mayMove = $derived(stands && isBefore(booking.moveUntil));
  const mayCancel = $derived(stands && (booking.waitsUntil !== null || isBefore(booking.cancelUntil)));
  const askWhom = $derived(
    booking.askWhom === '' ? say('booking.ask-names', { names: booking.hosts.join(', ') }) : booking.askWhom,
  );
  const own = ownZone();
  // Where people meet in person the place's clock comes first, else the guest's, as in every mail about it.
  const zone = $derived(booking.placeKind === 'inPerson' ? booking.zone : booking.guestZone);
  const otherZone = $derived(zone === booking.zone ? booking.guestZone : booking.zone);
  const alsoIn = $derived(
    [otherZone, own].filter(
      (one, at, all) => !sameClock(one, zone, start) && (at === 0 || !sameClock(one, all[0] ?? zone, start)),
    ),
  );
  const path = $derived({ secret: data.secret });
  onMount(tellHeight);

  let cancelling = $state(false);
  let moving = $state(false);
  let moved = $state(false);
  let copied = $state<Copied>('not yet');

  async function copyLink(): Promise<void> {
    copied = await putOnClipboard(location.href);
  }

  function until(at: string): string {
    return `${dayName(dateIn(at, zone))}, ${timeOf(at, zone)}${inBrackets(beside(at, zone, otherZone))}`;
  }
</script>

<svelte:head><title>{booking.title} – {say('booking.yours')}</title></svelte:head>

<PageHead
  workspace={booking.workspace}
  desk={booking.desk}
  title={booking.title}
  hosts={booking.hosts.map((name) => ({ name }))}
  names={booking.hosts.join(', ')}
  accent={booking.accent}
/>

<main class="mx-auto max-w-[1216px] px-[18px] pt-6 pb-16 md:px-6">
  <div class="grid grid-cols-[minmax(0,1fr)] gap-6 md:grid-cols-[minmax(0,1fr)_340px]">
    <div class="min-w-0 space-y-6">
      <section class="self-start rounded-2xl border border-line bg-card p-5 md:p-7" aria-labelledby="when">
        {#if booking.cancelledAt}
          <p
            class="inline-flex items-center gap-2 rounded-full bg-brick-tint px-3 py-0.5 font-semibold text-brick-text"
          >
            <span aria-hidden="true">×</span>{endedInWords(booking.cancelledBy, booking.workspace)}
          </p>
          {#if booking.cancelWord}<p class="mt-2 border-l-4 border-edge pl-3 whitespace-pre-line">
              {booking.cancelWord}
            </p>{/if}
        {:else if booking.waitsUntil}
          <p class="inline-flex items-center gap-2 rounded-full bg-glow-tint px-3 py-0.5 font-semibold text-on-tint">
            <span aria-hidden="true">…</span>{say('booking.asked')}
          </p>
          <p class="mt-2">
            {say('booking.answered-by', {
              workspace: booking.workspace,
              until: until(booking.waitsUntil),
            })}
          </p>
        {:else}
          <p class="inline-flex items-center gap-2 rounded-full bg-sea-tint px-3 py-0.5 font-semibold text-sea-text">
            <span aria-hidden="true">✓</span>
            {over ? say('booking.was') : say('booking.is')}
          </p>
        {/if}
        {#if booking.mailWaits}<p class="mt-2 border-l-4 border-edge pl-3">
            {say('booking.mail-waits', { workspace: booking.workspace })}
          </p>{/if}
        {#if moved && stands}<p class="mt-2 font-semibold" role="status">
            {say(booking.mailWaits ? 'booking.moved-mail-waits' : 'booking.moved')}
          </p>{/if}
        <h2 id="when" class="mt-4 text-2xl">{fullDate(dateIn(booking.start, zone))}</h2>
        <p class="font-heading text-when leading-tight font-semibold">
          {timeOf(booking.start, zone)} – {timeOf(booking.end, zone)}
          <span class="font-sans text-base font-normal text-muted max-md:block"
            >{say('zone.city-time', { city: cityOf(zone) })}, {lengthOf(minutes)}</span
          >
        </p>
        {#each alsoIn as there (there)}
          <p class="mt-1 text-muted">
            {there === own
              ? say('zone.where-you-are', { city: cityOf(there) })
              : `${say('zone.city-time', { city: cityOf(there) })}:`}
            {fullDate(dateIn(booking.start, there))}, {timeOf(booking.start, there)} – {timeOf(booking.end, there)}
          </p>
        {/each}
        <dl class="mt-6 grid grid-cols-[92px_1fr] gap-x-4 gap-y-2">
          {#if booking.roomLink}
            <dt class="text-muted">{say('booking.where')}</dt>
            <dd>
              <a
                class="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
                href={booking.roomLink}
                rel="noopener">{say('booking.video-room')}</a
              >{#if booking.roomCode}<span class="block text-muted"
                  >{say('booking.room-code', { code: booking.roomCode })}</span
                >{/if}
            </dd>
          {:else if place}
            <dt class="text-muted">{say('booking.where')}</dt>
            <dd>{place}</dd>
          {/if}
          <dt class="text-muted">{say('booking.with')}</dt>
          <dd>{booking.hosts.join(', ')}</dd>
          <dt class="text-muted">{say('booking.for')}</dt>
          <dd>
            {booking.guestName}{#if booking.guestEmail !== ''}, <span class="wrap-anywhere">{booking.guestEmail}</span
              >{/if}
          </dd>
          {#if booking.bookerName !== ''}
            <dt class="text-muted">{say('booking.booked-by')}</dt>
            <dd>{booking.bookerName}</dd>
          {/if}
          {#if booking.party > 1 && booking.mostParty > 1}
            <dt class="text-muted">{say('booking.people')}</dt>
            <dd>{booking.party}</dd>
          {/if}
        </dl>
        {#if stands && (booking.words || booking.description || booking.directions || booking.goTo)}
          <div class="mt-5 space-y-3 border-t border-line pt-4">
            <!-- eslint-disable svelte/no-at-html-tags -- made safe by the server -->
            {#if booking.description}<div class="prose-guest">{@html booking.description}</div>{/if}
            {#if booking.words}<div class="prose-guest">{@html booking.words}</div>{/if}
            {#if booking.directions}
              <h3 class="text-base">{say('about.how-to-get-there')}</h3>
              <div class="prose-guest">{@html booking.directions}</div>
            {/if}
            <!-- eslint-enable svelte/no-at-html-tags -->
            {#if booking.goTo}<ActionButton href={booking.goTo} class="min-h-11">{say('form.go-on-there')}</ActionButton
              >{/if}
          </div>
        {/if}
      </section>
      {#if questions.length > 0 || given.length > 0}
        <ChangeAnswers
          secret={data.secret}
          {questions}
          {given}
          mayChange={stands && !begun && questions.length > 0}
          onchanged={() => void askAnew()}
        />
      {/if}
      {#if moving && mayMove}
        <MovePanel
          {zone}
          {otherZone}
          now={booking.now}
          firstDate={booking.firstDate}
          told={say('booking.told', { names: booking.hosts.join(', ') })}
          load={async () =>
            (
              await must(
                guestApi.GET('/api/public/bookings/{secret}/openings', {
                  params: { path, query: rangeOf(booking.firstDate, booking.lastDate) },
                }),
              )
            ).openings}
          move={(to) =>
            must(guestApi.POST('/api/public/bookings/{secret}/move', { params: { path }, body: { start: to } }))}
          onmoved={() => {
            moving = false;
            moved = true;
            scrollTo({ top: 0 });
            void askAnew();
          }}
          onclose={() => (moving = false)}
        />
      {/if}
    </div>

    <aside class="space-y-5">
      {#if stands && !begun}
        <section>
          <h2 class="text-lg">{say('booking.move-title')}</h2>
          {#if mayMove}
            <p class="mt-1 text-muted">
              {booking.moveUntil === booking.start
                ? say('booking.stays')
                : say('booking.stays-until', {
                    until: until(booking.moveUntil ?? booking.start),
                  })}
            </p>
            <ActionButton onclick={() => (moving = true)} disabled={moving} class="mt-3 min-h-11 max-md:w-full"
              >{say('booking.move')}</ActionButton
            >
          {:else}
            <p class="mt-1 text-muted">
              {booking.moveUntil === null ? say('booking.no-moving') : say('booking.no-moving-any-more')}
              {askWhom}
            </p>
          {/if}
        </section>
      {/if}
      {#if !booking.cancelledAt && !booking.waitsUntil}
        <section class="border-t border-line pt-5">
          <h2 class="text-lg">{say('booking.calendar-title')}</h2>
          <p class="mt-1 text-muted">
            {say('booking.calendar-detail')}
          </p>
          <ActionButton
            kind="main"
            href="/api/public/bookings/{data.secret}/calendar.ics"
            class="mt-3 min-h-11 max-md:w-full">{say('booking.calendar-save')}</ActionButton
          >
        </section>
      {/if}
      {#if stands && !begun && booking.mostBrought > 0}
        <BringAlong
          save={(form) =>
            must(
              guestApi.PUT('/api/public/bookings/{secret}/companions', {
                params: { path: { secret: data.secret } },
                body: form,
              }),
            )}
          people={booking.companions}
          mostMailed={booking.mostMailed}
          waiting={booking.mailWaitsFor}
          most={booking.mostParty > 1 ? booking.mostParty - 1 : booking.mostBrought}
          party={booking.mostParty > 1 ? booking.party : undefined}
          onchanged={() => void askAnew()}
        />
      {/if}
      <section class="border-t border-line pt-5">
        <h2 class="text-lg">{say('booking.address-title')}</h2>
        <p class="mt-1 text-muted">
          {say('booking.address-detail')}
        </p>
        <ActionButton onclick={() => void copyLink()} class="mt-3 min-h-11 max-md:w-full"
          >{copied === 'copied' ? say('booking.address-copied') : say('booking.address-copy')}</ActionButton
        >
        {#if copied === 'refused'}<p class="mt-2 text-brick" role="alert">
            {say('booking.address-no-copy')}
          </p>{/if}
      </section>
      {#if stands}
        <section class="border-t border-line pt-5">
          <h2 class="text-lg">{say('booking.cancel-title')}</h2>
          {#if mayCancel}
            {#if booking.cancelWords}<p class="mt-1 whitespace-pre-line">{booking.cancelWords}</p>{/if}
            <p class="mt-1 text-muted">
              {booking.waitsUntil ? say('booking.take-back-detail') : say('booking.cancel-detail')}
            </p>
            <ActionButton onclick={() => (cancelling = true)} class="mt-3 min-h-11 max-md:w-full"
              >{say('booking.cancel')}</ActionButton
            >
          {:else}
            <p class="mt-1 text-muted">
              {booking.cancelUntil === null ? say('booking.no-cancelling') : say('booking.no-cancelling-any-more')}
              {askWhom}
            </p>
          {/if}
        </section>
      {/if}
      <p class="border-t border-line pt-5">
        <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={booking.pagePath}
          >{booking.offersAnother
            ? say('booking.reserve-another', { title: booking.title })
            : say('booking.see-others', { title: booking.title })}</a
        >
      </p>
    </aside>
  </div>
</main>

{#if cancelling}
  <CancelModal
    booking={say('booking.this')}
    reader={booking.hosts.join(', ')}
    words={booking.cancelWords}
    cancel={(word) => must(guestApi.POST('/api/public/bookings/{secret}/cancel', { params: { path }, body: { word } }))}
    oncancelled={() => {
      cancelling = false;
      void askAnew();
    }}
    onclose={() => (cancelling = false)}
  />
{/if}
