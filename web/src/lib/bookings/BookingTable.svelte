<script lang="ts">
  import { Temporal } from 'temporal-polyfill';
  import type { Schemas } from '$lib/api/client';
  import OutsideNote from '$lib/calendars/OutsideNote.svelte';
  import { cityOf, sameClock } from '$lib/time/clock';
  import { dateIn, dayMonth, dayName, lengthOf, longDate, timeOf } from '$lib/time/format';

  import { endInWords, needsAnswer, replyInWords } from './reply';

  interface Props {
    rows: Schemas['BookingRow'][];
    /** The workspace's zone, in which the list is read. */
    zone: string;
    now: string;
    oncancel: (row: Schemas['BookingRow']) => void;
  }

  let { rows, zone, now, oncancel }: Props = $props();

  const today = $derived(dateIn(now, zone));
  const days = $derived.by(() => {
    const grouped: { key: string; date: string; waits: boolean; rows: Schemas['BookingRow'][] }[] = [];
    for (const row of rows) {
      // What waits for an answer comes first, and its days are told apart from those of all the others.
      const [date, waits] = [dateIn(row.start, zone), needsAnswer(row)];
      const day = grouped.at(-1);
      if (day?.date === date && day.waits === waits) day.rows.push(row);
      else grouped.push({ key: `${date}${waits ? ' waits' : ''}`, date, waits, rows: [row] });
    }
    return grouped;
  });

  function minutesOf(row: Schemas['BookingRow']): number {
    return (Date.parse(row.end) - Date.parse(row.start)) / 60_000;
  }
</script>

<table
  class="w-full border-separate border-spacing-0 overflow-hidden rounded-2xl border border-line bg-card text-left max-md:block"
>
  <caption class="sr-only">Bookings by day, times in {cityOf(zone)}</caption>
  <thead class="text-fine text-muted max-md:hidden">
    <tr>
      <th scope="col" class="w-44 px-4 pt-3 pb-2 font-normal">{cityOf(zone)} time</th>
      <th scope="col" class="px-3 pt-3 pb-2 font-normal">Guest</th>
      <th scope="col" class="px-3 pt-3 pb-2 font-normal">Page</th>
      <th scope="col" class="px-3 pt-3 pb-2 font-normal">Host</th>
      <th scope="col" class="px-4 pt-3 pb-2 font-normal">Booked</th>
    </tr>
  </thead>
  {#each days as day (day.key)}
    <tbody class="max-md:block">
      <tr class="max-md:block">
        <th
          scope="colgroup"
          colspan="5"
          class="font-heading border-t border-line bg-paper px-4 py-1.5 text-body font-semibold max-md:block"
        >
          {longDate(day.date)}{#if day.date === today}<span class="ml-2 font-sans text-sm font-normal text-muted"
              >today</span
            >{/if}{#if day.waits}<span class="ml-2 font-sans text-sm font-normal text-brick">waits for your answer</span
            >{/if}
        </th>
      </tr>
      {#each day.rows as row (row.id)}
        <tr
          class="max-md:grid max-md:grid-cols-[auto_1fr] max-md:gap-x-3 max-md:border-t max-md:border-line max-md:px-4 max-md:py-2"
        >
          <td class="border-t border-line px-4 py-2.5 align-top max-md:border-0 max-md:p-0">
            <span class="flex items-center gap-2 font-bold"
              ><span aria-hidden="true" class="h-4 w-1.5 rounded-sm bg-sea"></span>{timeOf(row.start, zone)} – {timeOf(
                row.end,
                zone,
              )}</span
            >
            <span class="text-fine text-muted max-md:hidden">{lengthOf(minutesOf(row))}</span>
            {#if row.mayChange}<button
                type="button"
                class="ml-2 text-fine underline decoration-line-strong underline-offset-4 max-md:ml-0 max-md:block max-md:min-h-11"
                aria-label="Cancel the booking of {row.guestName}"
                onclick={() => oncancel(row)}>Cancel</button
              >{/if}
          </td>
          <td class="border-t border-line px-3 py-2.5 align-top max-md:border-0 max-md:p-0">
            <a
              href="/work/bookings/{row.id}"
              class="inline-flex min-h-6 items-center font-semibold underline decoration-line-strong underline-offset-4 max-md:min-h-11"
              >{row.guestName}</a
            >
            <span class="block text-fine break-all text-muted">{row.guestEmail}</span>
            {#if !sameClock(row.guestZone, zone, Temporal.Instant.from(row.start))}
              <span class="block text-fine text-muted"
                >{timeOf(row.start, row.guestZone)} in {cityOf(row.guestZone)}</span
              >
            {/if}
            {#if row.cancelledAt}
              <span class="block text-fine text-brick"
                >{endInWords(row)} ({dayMonth(dateIn(row.cancelledAt, zone))})</span
              >
            {:else}
              {@const reply = replyInWords(row, zone)}
              {#if row.waitsUntil}<span class="block text-fine font-semibold text-brick"
                  >asks; answer until {dayName(dateIn(row.waitsUntil, zone))}, {timeOf(row.waitsUntil, zone)}</span
                >{/if}
              {#if reply}<span
                  class="block text-fine {row.reply === 'declined' || row.wishStart
                    ? 'font-semibold text-brick'
                    : 'text-sea-text'}">{reply}</span
                >{/if}
            {/if}
          </td>
          <td class="border-t border-line px-3 py-2.5 align-top max-md:col-span-2 max-md:border-0 max-md:p-0">
            <a
              href="/work/{row.isOfLink ? 'links' : 'pages'}/{row.pageId}"
              class="underline decoration-line-strong underline-offset-4">{row.page}</a
            >
            {#if row.place}<span class="block text-fine text-muted">{row.place}</span>{/if}
          </td>
          <td class="border-t border-line px-3 py-2.5 align-top max-md:border-0 max-md:p-0">{row.hosts.join(', ')}</td>
          <td class="border-t border-line px-4 py-2.5 align-top text-fine text-muted max-md:hidden"
            >{dayMonth(dateIn(row.bookedAt, zone))}, {timeOf(row.bookedAt, zone)}</td
          >
        </tr>
        {#each row.outside as outside (outside.id)}
          <tr class="max-md:block"
            ><td colspan="5" class="px-4 pb-3 max-md:block"><OutsideNote {outside} booking={row.guestName} {zone} /></td
            ></tr
          >
        {/each}
      {/each}
    </tbody>
  {/each}
</table>
