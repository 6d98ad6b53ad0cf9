<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import OutsideNote from '$lib/calendars/OutsideNote.svelte';
  import type { Attachment } from 'svelte/attachments';
  import { SvelteMap } from 'svelte/reactivity';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, dayMonth, lengthOf, longDate, timeOf } from '$lib/time/format';
  import { fullness, type Appointment } from './appointments';
  import { byDays, inOrder } from './days';
  import GuestCell from './GuestCell.svelte';

  interface Props {
    rows: Schemas['BookingRow'][];
    /** Of whoever reads the list. */
    zone: string;
    now: string;
    /** Whether those of one day stand together under it. */
    byDay?: boolean;
    /** Whether what waits for an answer stands before all others. */
    waitsFirst?: boolean;
    /** Without it, nothing is done from the list. */
    oncancel?: (appointment: Appointment) => void;
  }

  let { rows, zone, now, byDay = true, waitsFirst = false, oncancel }: Props = $props();

  /** A list of more keeps no row drawn that is far from the screen. */
  const MANY = 200;

  const today = $derived(dateIn(now, zone));
  const days = $derived(byDay ? byDays(rows, zone, waitsFirst) : inOrder(rows));

  /** How high each group is that is far from the screen: its place is kept, so that nothing jumps. */
  const far = new SvelteMap<string, number>();

  function watch(key: string): Attachment<HTMLElement> {
    return (node) => {
      const observer = new IntersectionObserver(
        ([entry]) => {
          if (entry?.isIntersecting) far.delete(key);
          else if (rows.length > MANY && !node.contains(document.activeElement)) far.set(key, node.offsetHeight);
        },
        { rootMargin: '2000px 0px' },
      );
      observer.observe(node);
      return () => observer.disconnect();
    };
  }

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
    <tbody class="max-md:block" {@attach watch(day.key)}>
      {#if far.has(day.key)}
        <tr aria-hidden="true" style:height="{far.get(day.key)}px"></tr>
      {:else}
        {#if byDay}
          <tr class="max-md:block">
            <th
              scope="colgroup"
              colspan="5"
              class="font-heading border-t border-line bg-paper px-4 py-1.5 text-body font-semibold max-md:block"
            >
              {longDate(day.date)}{#if day.date === today}<span class="ml-2 font-sans text-sm font-normal text-muted"
                  >today</span
                >{/if}{#if day.waits}<span class="ml-2 font-sans text-sm font-normal text-brick"
                  >waits for your answer</span
                >{/if}
            </th>
          </tr>
        {/if}
        {#each day.appointments as appointment (appointment.row.id)}
          {@const { row, rows, isShared } = appointment}
          <tr
            class="max-md:grid max-md:grid-cols-[auto_1fr] max-md:gap-x-3 max-md:border-t max-md:border-line max-md:px-4 max-md:py-2"
          >
            <td class="border-t border-line px-4 py-2.5 align-top max-md:border-0 max-md:p-0">
              {#if !byDay}<span class="block text-fine text-muted">{longDate(dateIn(row.start, zone))}</span>{/if}
              <span class="flex items-center gap-2 font-bold"
                ><span aria-hidden="true" class="h-4 w-1.5 rounded-sm bg-sea"></span>{timeOf(row.start, zone)} – {timeOf(
                  row.end,
                  zone,
                )}</span
              >
              <span class="text-fine text-muted max-md:hidden">{lengthOf(minutesOf(row))}</span>
              {#if row.mayChange && oncancel}<button
                  type="button"
                  class="ml-2 text-fine underline decoration-line-strong underline-offset-4 max-md:ml-0 max-md:block max-md:min-h-11"
                  aria-label={isShared ? `Cancel all: ${row.page}` : `Cancel the booking of ${row.guestName}`}
                  onclick={() => oncancel(appointment)}>{isShared ? 'Cancel all' : 'Cancel'}</button
                >{/if}
            </td>
            <td class="border-t border-line px-3 py-2.5 align-top max-md:border-0 max-md:p-0">
              {#if isShared}
                <a
                  href="/work/bookings/session/{row.sessionId}"
                  class="inline-flex min-h-6 items-center font-semibold underline decoration-line-strong underline-offset-4 max-md:min-h-11"
                  >{fullness(appointment)}</a
                >
                <ul class="mt-1 border-l border-line pl-2.5">
                  {#each rows as person (person.id)}<li class="py-0.5"><GuestCell row={person} {zone} /></li>{/each}
                </ul>
              {:else}
                <GuestCell {row} {zone} />
              {/if}
            </td>
            <td class="border-t border-line px-3 py-2.5 align-top max-md:col-span-2 max-md:border-0 max-md:p-0">
              <a
                href="/work/{row.isOfLink ? 'links' : 'pages'}/{row.pageId}"
                class="underline decoration-line-strong underline-offset-4">{row.page}</a
              >
              {#if row.place}<span class="block text-fine text-muted">{row.place}</span>{/if}
            </td>
            <td class="border-t border-line px-3 py-2.5 align-top max-md:border-0 max-md:p-0">{row.hosts.join(', ')}</td
            >
            <td class="border-t border-line px-4 py-2.5 align-top text-fine text-muted max-md:hidden"
              >{dayMonth(dateIn(row.bookedAt, zone))}, {timeOf(row.bookedAt, zone)}</td
            >
          </tr>
          {#each row.outside as outside (outside.id)}
            <tr class="max-md:block"
              ><td colspan="5" class="px-4 pb-3 max-md:block"
                ><OutsideNote {outside} booking={row.guestName} {zone} /></td
              ></tr
            >
          {/each}
        {/each}
      {/if}
    </tbody>
  {/each}
</table>
