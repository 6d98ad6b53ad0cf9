<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, shortDate, timeOf } from '$lib/time/format';
  import { standings } from './mailing';

  interface Props {
    guests: Schemas['MailingGuestRow'][];
    /** The reader's zone. */
    zone: string;
  }

  let { guests, zone }: Props = $props();

  const looks: Record<Schemas['MailingStanding'], string> = {
    unopened: 'border-glow bg-glow-tint text-on-tint',
    opened: 'border-glow bg-glow-tint text-on-tint',
    answered: 'border-line-strong text-ink',
    booked: 'border-sea-tint bg-sea-tint text-sea-text',
    over: 'border-edge text-muted',
    failed: 'border-brick bg-brick-tint text-brick-text',
  };

  const at = (instant: string): string => `${shortDate(dateIn(instant, zone))}, ${timeOf(instant, zone)}`;
</script>

<table class="w-full border-separate border-spacing-0 overflow-hidden rounded-2xl border border-line bg-card text-left">
  <caption class="sr-only">Guests of this mailing, times in {cityOf(zone)}</caption>
  <thead class="text-fine text-muted">
    <tr>
      <th scope="col" class="px-4 pt-3 pb-2 font-normal">Guest</th>
      <th scope="col" class="px-3 pt-3 pb-2 font-normal">Stands</th>
      <th scope="col" class="px-3 pt-3 pb-2 font-normal">Booked</th>
      <th scope="col" class="px-3 pt-3 pb-2 font-normal">Opened</th>
      <th scope="col" class="px-4 pt-3 pb-2 font-normal">See</th>
    </tr>
  </thead>
  <tbody>
    {#each guests as guest (guest.linkId ?? guest.messageId)}
      <tr>
        <td class="border-t border-line px-4 py-2 align-top">
          {#if guest.guestId}<a
              class="inline-flex min-h-6 items-center font-semibold underline decoration-line-strong underline-offset-4"
              href="/work/guests/{guest.guestId}">{guest.name}</a
            >{:else}{guest.name}{/if}
          <span class="block text-fine break-all text-muted">{guest.email}</span>
        </td>
        <td class="border-t border-line px-3 py-2 align-top">
          <span class="inline-block rounded-full border px-2.5 py-0.5 text-sm font-semibold {looks[guest.standing]}"
            >{standings[guest.standing]}</span
          >
          {#if guest.askedAgain > 0}<span class="block text-fine text-muted"
              >asked again{guest.askedAgain > 1 ? ` ${String(guest.askedAgain)} times` : ''}</span
            >{/if}
        </td>
        <td class="border-t border-line px-3 py-2 align-top"
          >{#if guest.start && guest.bookingId}<a
              class="inline-flex min-h-6 items-center underline decoration-line-strong underline-offset-4"
              href="/work/bookings/{guest.bookingId}">{at(guest.start)}</a
            >{/if}</td
        >
        <td class="border-t border-line px-3 py-2 align-top text-muted">{guest.openedAt ? at(guest.openedAt) : ''}</td>
        <td class="border-t border-line px-4 py-2 align-top">
          {#if guest.linkId}<a
              class="mr-3 inline-flex min-h-6 items-center underline decoration-line-strong underline-offset-4"
              href="/work/links/{guest.linkId}"><span class="sr-only">{guest.name}: </span>Link</a
            >{/if}{#if guest.messageId}<a
              class="inline-flex min-h-6 items-center underline decoration-line-strong underline-offset-4"
              href="/work/post?message={guest.messageId}"><span class="sr-only">{guest.name}: </span>Letter</a
            >{/if}
        </td>
      </tr>
    {/each}
  </tbody>
</table>
