<script lang="ts">
  import { Temporal } from 'temporal-polyfill';
  import type { Schemas } from '$lib/api/client';
  import { cityOf, sameClock } from '$lib/time/clock';
  import { dateIn, dayMonth, dayName, timeOf } from '$lib/time/format';
  import { endInWords, replyInWords } from './reply';

  interface Props {
    row: Schemas['BookingRow'];
    zone: string;
  }

  let { row, zone }: Props = $props();
</script>

<!-- A booking's guest, with what became of the booking. -->
<a
  href="/work/bookings/{row.id}"
  class="inline-flex min-h-6 items-center font-semibold underline decoration-line-strong underline-offset-4 max-md:min-h-11"
  >{row.isAmongOurselves ? 'Among ourselves' : row.guestName}</a
>{#if row.party > 1}<span class="ml-1.5 text-fine text-muted">{row.party} people</span>{/if}
{#if row.isAmongOurselves}<span class="block text-fine text-muted">arranged by {row.guestName}</span>{/if}
{#if row.guestEmail !== ''}<span class="block text-fine break-all text-muted">{row.guestEmail}</span>{/if}
{#if row.bookerName !== ''}<span class="block text-fine break-all text-muted"
    >booked by {row.bookerName}, {row.bookerEmail}</span
  >{/if}
{#if !sameClock(row.guestZone, zone, Temporal.Instant.from(row.start))}
  <span class="block text-fine text-muted">{timeOf(row.start, row.guestZone)} in {cityOf(row.guestZone)}</span>
{/if}
{#if row.cancelledAt}
  <span class="block text-fine text-brick">{endInWords(row)} ({dayMonth(dateIn(row.cancelledAt, zone))})</span>
{:else}
  {@const reply = replyInWords(row, zone)}
  {#if row.waitsUntil}<span class="block text-fine font-semibold text-brick"
      >asks; answer until {dayName(dateIn(row.waitsUntil, zone))}, {timeOf(row.waitsUntil, zone)}</span
    >{/if}
  {#if row.outcome !== 'none'}<span class="block text-fine {row.outcome === 'missed' ? 'text-brick' : 'text-sea-text'}"
      >{row.outcome === 'missed' ? 'missed' : 'happened'}</span
    >{/if}
  {#if reply}<span
      class="block text-fine {row.reply === 'declined' || row.wishStart ? 'font-semibold text-brick' : 'text-sea-text'}"
      >{reply}</span
    >{/if}
{/if}
