<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { cityOf, sameClock } from '$lib/time/clock';
  import { timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { Temporal } from 'temporal-polyfill';
  import type { LinkEditing } from './LinkEditing.svelte';
  import { guestsToBook } from './suited';
  import { ago, dayAndTime, whyWords } from './words';

  interface Props {
    link: LinkEditing;
    mayEdit: boolean;
    nameOf: (host: string) => string;
    onbooked: () => void;
  }

  let { link, mayEdit, nameOf, onbooked }: Props = $props();

  type Fit = Schemas['FitView'];
  let heard = $state.raw<Schemas['GuestTimesView'][]>([]);
  const loading = new Attempt();
  const booking = new Attempt();
  const { zone } = $derived(link.form.times);
  // One key for each time: pressed again after a lost answer, the server finds the booking it made.
  const keys: Record<string, string> = {};

  // Whatever changes what is open, or what suits, is asked anew.
  $effect(() => {
    const id = link.saved?.row.id;
    void link.supply;
    if (id !== undefined)
      void loading.run(async () => {
        heard = await must(api.GET('/api/links/{id}/suited-times', { params: { path: { id } } }));
      });
  });

  /** By the guest's clock, where that differs. */
  function theirs(start: string, guest: Schemas['GuestTimes']): string {
    return sameClock(zone, guest.zone, Temporal.Instant.from(start))
      ? ''
      : `, ${timeOf(start, guest.zone)} in ${cityOf(guest.zone)}`;
  }

  function lengthOfTime(fit: Fit): number {
    return (Date.parse(fit.end) - Date.parse(fit.start)) / 60_000;
  }

  async function book(guest: Schemas['GuestTimes'], fit: Fit): Promise<void> {
    const done = await booking.run(() =>
      must(
        api.POST('/api/links/{id}/bookings', {
          params: {
            path: { id: link.saved?.row.id ?? '' },
            header: { 'Idempotency-Key': (keys[guest.email + fit.start] ??= crypto.randomUUID()) },
          },
          body: {
            start: fit.start,
            duration: lengthOfTime(fit),
            guests: guestsToBook(link.form.guests, link.form.details.together ?? true, {
              name: guest.name,
              email: guest.email,
            }),
          },
        }),
      ),
    );
    if (done) onbooked();
  }
</script>

<section aria-labelledby="their-times" class="rounded-2xl border border-line bg-card p-4">
  <h2 id="their-times" class="text-part">What suits {heard.length === 1 ? heard[0]?.guest.name : 'the guests'}</h2>
  {#if loading.problem}<ProblemNote problem={loading.problem} />{/if}
  {#if booking.problem}<ProblemNote problem={booking.problem} />{/if}
  {#each heard as { guest, fits } (guest.email + guest.name)}
    <div class="border-t border-line py-2 first-of-type:border-t-0">
      <p class="text-sm text-muted">
        {#if heard.length > 1}<strong class="text-ink">{guest.name}</strong>,
        {/if}{guest.email}{guest.email ? ', ' : ''}{ago(guest.at, link.supply?.now ?? guest.at)}: {guest.stretches
          .map(
            (stretch) =>
              `${dayAndTime(stretch.start, zone)} – ${timeOf(stretch.end, zone)}${theirs(stretch.start, guest)}`,
          )
          .join('; ')}
      </p>
      {#if guest.words}<p class="mt-1 whitespace-pre-line">“{guest.words}”</p>{/if}
      {#if fits.length === 0}
        <p class="mt-1">
          Nothing that is open fits. Change what the link offers, or send times of yours with “times I pick”.
        </p>
      {:else}
        <ol class="mt-1.5 flex flex-wrap gap-2">
          {#each fits as fit, at (fit.start)}
            <li>
              <ActionButton
                kind={at === 0 ? 'main' : 'plain'}
                class="py-1.5"
                disabled={!mayEdit || booking.busy}
                onclick={() => void book(guest, fit)}
                ><span class="text-left"
                  ><span class="block font-semibold">Book {dayAndTime(fit.start, zone)}{theirs(fit.start, guest)}</span
                  ><span class="block text-sm font-normal">{whyWords(fit, nameOf)}</span></span
                ></ActionButton
              >
            </li>
          {/each}
        </ol>
      {/if}
    </div>
  {/each}
</section>
