<script lang="ts">
  import { goto } from '$app/navigation';
  import { Checkbox, Input } from 'flowbite-svelte';
  import { Temporal } from 'temporal-polyfill';
  import { appointmentsOf, type Appointment } from '$lib/bookings/appointments';
  import { putFilter } from '$lib/bookings/filter';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, fullDate, longDate, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const zone = $derived(data.me.zone);
  let names = $state(true);
  const days = $derived(
    Array.from({ length: data.days }, (_, at) => Temporal.PlainDate.from(data.from).add({ days: at }).toString()).map(
      (date) => ({ date, appointments: appointmentsOf(data.rows.filter((row) => dateIn(row.start, zone) === date)) }),
    ),
  );
  const back = $derived.by(() => {
    const query = new URLSearchParams();
    putFilter(query, data.filter);
    return query.size > 0 ? `?${query}` : '';
  });

  function show(day: string, count: number): void {
    if (day === '') return;
    const query = new URLSearchParams({ day, days: String(count) });
    putFilter(query, data.filter);
    void goto(`?${query}`, { replaceState: true, keepFocus: true, noScroll: true });
  }

  const shift = (days: number): string => Temporal.PlainDate.from(data.from).add({ days }).toString();

  /** On a wall, who comes may be nobody's business. */
  function guestsOf({ row, rows, coming }: Appointment): string {
    if (row.isAmongOurselves) return 'among ourselves';
    if (names) return rows.map((one) => one.guestName).join(', ');
    return coming === 1 ? '1 guest' : `${String(coming)} guests`;
  }
</script>

<svelte:head><title>Bookings to print – Loose Lantern</title></svelte:head>

<div class="print:hidden">
  <p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/bookings{back}">Bookings</a></p>
  <header class="mb-4 flex flex-wrap items-center gap-x-5 gap-y-3">
    <h1 class="text-page">Print</h1>
    <Segments
      label="How much"
      options={[
        { value: 7, text: 'Week' },
        { value: 1, text: 'Day' },
      ]}
      value={data.days}
      onchoose={(count) => show(data.from, count)}
    />
    <ActionButton onclick={() => show(shift(-data.days), data.days)}>Earlier</ActionButton>
    <span class="w-40"
      ><Input
        type="date"
        aria-label="Day"
        class="py-1.5"
        value={data.from}
        onchange={(event) => show(event.currentTarget.value, data.days)}
      /></span
    >
    <ActionButton onclick={() => show(shift(data.days), data.days)}>Later</ActionButton>
    <Checkbox bind:checked={names}>guests’ names</Checkbox>
    <ActionButton kind="main" class="ml-auto" onclick={() => print()}>Print</ActionButton>
  </header>
</div>

<article class="max-w-4xl rounded-2xl border border-line bg-card p-7 print:max-w-none print:border-0 print:p-0">
  <h2 class="text-xl">{data.me.workspace}</h2>
  <p class="mb-3">
    {fullDate(data.from)}{data.days > 1 ? ` to ${fullDate(data.to)}` : ''}, {cityOf(zone)} time
  </p>
  {#each days as { date, appointments } (date)}
    <section class="break-inside-avoid border-t-2 border-ink py-2" aria-label={longDate(date)}>
      <h3 class="font-heading text-lg font-semibold">{longDate(date)}</h3>
      <table class="w-full table-fixed text-left">
        <tbody>
          {#each appointments as appointment (appointment.row.id)}
            {@const { row, rows } = appointment}
            <tr class="border-t border-line align-top">
              <td class="w-32 py-1 font-bold whitespace-nowrap tabular-nums"
                >{timeOf(row.start, zone)} – {timeOf(row.end, zone)}</td
              >
              <td class="w-2/5 py-1 pr-3">{row.page}{row.place ? `, ${row.place}` : ''}</td>
              <td class="py-1 pr-3"
                >{guestsOf(appointment)}{rows.some((one) => one.waitsUntil !== null) ? ' (asked for)' : ''}</td
              >
              <td class="py-1">{row.hosts.join(', ')}</td>
            </tr>
          {:else}
            <tr><td class="py-1 text-muted">Nothing is booked</td></tr>
          {/each}
        </tbody>
      </table>
    </section>
  {/each}
  {#if !data.isWhole}<p class="text-brick">There are more than fit here: choose a day, or fewer pages.</p>{/if}
</article>
