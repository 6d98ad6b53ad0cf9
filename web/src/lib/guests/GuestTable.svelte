<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { cityOf, sameClock } from '$lib/time/clock';
  import { counted, dateIn, dayMonth, fullDate, shortDate, timeOf } from '$lib/time/format';

  interface Props {
    rows: Schemas['GuestRow'][];
    /** The reader's zone. */
    zone: string;
    now: string;
  }

  let { rows, zone, now }: Props = $props();

  /** With its year, where that is another one than now. */
  function dayOf(at: string): string {
    const date = dateIn(at, zone);
    return date.slice(0, 4) === dateIn(now, zone).slice(0, 4)
      ? dayMonth(date)
      : `${dayMonth(date)} ${date.slice(0, 4)}`;
  }
</script>

<table
  class="w-full border-separate border-spacing-0 overflow-hidden rounded-2xl border border-line bg-card text-left max-md:block"
>
  <caption class="sr-only">Guests, times in {cityOf(zone)}</caption>
  <thead class="text-fine text-muted max-md:hidden">
    <tr>
      <th scope="col" class="px-4 pt-3 pb-2 font-normal">Guest</th>
      <th scope="col" class="px-3 pt-3 pb-2 font-normal">Next appointment</th>
      <th scope="col" class="px-3 pt-3 pb-2 font-normal">Last</th>
      <th scope="col" class="px-3 pt-3 pb-2 font-normal">Links out</th>
      <th scope="col" class="px-4 pt-3 pb-2 font-normal">Keeper</th>
    </tr>
  </thead>
  <tbody class="max-md:block">
    {#each rows as row (row.id)}
      <tr class="max-md:block max-md:border-t max-md:border-line max-md:px-4 max-md:py-2 max-md:first:border-t-0">
        <td class="border-t border-line px-4 py-2 align-top max-md:block max-md:border-0 max-md:p-0">
          <a
            href="/work/guests/{row.id}"
            class="inline-flex min-h-6 items-center font-semibold underline decoration-line-strong underline-offset-4 max-md:min-h-11"
            >{row.name}</a
          >{#if row.organisation}<span class="ml-2 text-muted">{row.organisation}</span>{/if}
          <span class="block text-fine break-all text-muted">{row.email || row.phone || 'no email'}</span>
        </td>
        <td class="border-t border-line px-3 py-2 align-top max-md:block max-md:border-0 max-md:p-0">
          {#if row.next}
            <span class="max-md:mr-1 md:hidden">Next:</span>
            <span title={fullDate(dateIn(row.next, zone))}
              >{shortDate(dateIn(row.next, zone))}, {timeOf(row.next, zone)}</span
            >
            {#if row.zone && !sameClock(row.zone, zone, row.next)}<span class="block text-fine text-muted"
                >{timeOf(row.next, row.zone)} in {cityOf(row.zone)}</span
              >{/if}
          {:else}<span class="text-muted max-md:hidden">none</span>{/if}
        </td>
        <td class="border-t border-line px-3 py-2 align-top text-muted max-md:hidden"
          >{row.last ? dayOf(row.last) : ''}{#if row.bookings > 1}<span class="block text-fine"
              >{counted(row.bookings, 'booking', 'bookings')}</span
            >{/if}</td
        >
        <td class="border-t border-line px-3 py-2 align-top max-md:hidden">{row.offersOut || ''}</td>
        <td class="border-t border-line px-4 py-2 align-top max-md:hidden">{row.keeper}</td>
      </tr>
    {/each}
  </tbody>
</table>
