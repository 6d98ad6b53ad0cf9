<script lang="ts">
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import CancelModal from '$lib/bookings/CancelModal.svelte';
  import MovePanel from '$lib/moving/MovePanel.svelte';
  import { rangeOf } from '$lib/moving/range';
  import { dateIn } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import type { LinkEditing } from './LinkEditing.svelte';
  import { dayAndTime, endings } from './words';

  interface Props {
    link: LinkEditing;
    mayEdit: boolean;
    now: string;
  }

  let { link, mayEdit, now }: Props = $props();

  type Booking = Schemas['LinkBookingView'];
  const { zone } = $derived(link.form.times);
  const bookings = $derived(link.saved?.row.bookings ?? []);
  let moving = $state.raw<Booking | undefined>(undefined);
  let cancelling = $state.raw<Booking | undefined>(undefined);

  const isToCome = (booking: Booking): boolean => Date.parse(booking.start) > Date.parse(now);

  async function load(id: string): Promise<Schemas['Opening'][]> {
    const range = rangeOf(dateIn(now, zone), link.offer.until);
    const answer = await must(api.GET('/api/bookings/{id}/openings', { params: { path: { id }, query: range } }));
    return answer.openings;
  }

  function done(): void {
    moving = undefined;
    cancelling = undefined;
    void link.refresh();
  }
</script>

<section aria-labelledby="came-of-it" class="rounded-2xl border border-line bg-card p-4">
  <h2 id="came-of-it" class="text-part">What came of it</h2>
  {#if bookings.length === 0}
    <p class="mt-1 text-muted">Nothing was booked by this link.</p>
  {:else}
    <ul class="mt-1">
      {#each bookings as booking (booking.id)}
        <li class="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line py-2 first:border-t-0">
          <span class="min-w-0 flex-1">
            <a
              class="font-semibold underline decoration-line-strong underline-offset-4"
              href="/work/bookings/{booking.id}">{dayAndTime(booking.start, zone)}</a
            >
            {booking.guest}
            {#if booking.cancelledBy}<span class="text-brick">{endings[booking.cancelledBy]}</span>{/if}
          </span>
          {#if mayEdit && booking.cancelledBy === null && isToCome(booking)}
            <ActionButton class="py-1" disabled={moving?.id === booking.id} onclick={() => (moving = booking)}
              ><span class="sr-only">{booking.guest}: </span>Move</ActionButton
            >
            <ActionButton class="py-1" onclick={() => (cancelling = booking)}
              ><span class="sr-only">{booking.guest}: </span>Cancel</ActionButton
            >
          {/if}
        </li>
      {/each}
    </ul>
  {/if}
</section>

{#if moving}
  {@const { id, guest } = moving}
  <MovePanel
    {zone}
    otherZone={link.form.guestZone || zone}
    {now}
    firstDate={dateIn(now, zone)}
    told="{guest} and whoever takes part will be told."
    load={() => load(id)}
    move={(start) => must(api.POST('/api/bookings/{id}/move', { params: { path: { id } }, body: { start } }))}
    onmoved={done}
    onclose={() => (moving = undefined)}
  />
{/if}
{#if cancelling}
  {@const { id, guest } = cancelling}
  <CancelModal
    booking="the booking of {guest}"
    reader={guest}
    cancel={(word) => must(api.POST('/api/bookings/{id}/cancel', { params: { path: { id } }, body: { word } }))}
    oncancelled={done}
    onclose={() => (cancelling = undefined)}
  />
{/if}
