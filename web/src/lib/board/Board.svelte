<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { dayName, longDate, monthName } from '$lib/time/format';
  import BoardBar from './BoardBar.svelte';
  import { hoursOf, hourMarks, labelOf, placeOn } from './axis';

  interface Props {
    board: Schemas['BoardAnswer'];
    /** Whose lanes are shown, in this order. */
    hosts: Schemas['BoardHost'][];
    today: string;
  }

  let { board, hosts, today }: Props = $props();

  const axis = $derived(hoursOf(board, new Set(hosts.map((host) => host.id))));
  const marks = $derived(hourMarks(axis));

  function barsOf(day: Schemas['BoardDay'], host: string): Schemas['BoardBar'][] {
    return (day.lanes.find((lane) => lane.hostId === host)?.bars ?? []).filter((bar) => bar.toMinute > axis.from && bar.fromMinute < axis.to);
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -- a keyboard must be able to scroll it where it is wider than the screen -->
<div tabindex="0" role="region" aria-label="Board" class="relative overflow-x-auto rounded-2xl border border-line bg-card px-3.5 pt-2 pb-3">
  <table class="w-full min-w-[640px] table-fixed border-collapse">
    <caption class="sr-only">Days down, a lane for each host, hours from left to right</caption>
    <thead>
      <tr>
        <th scope="col" class="w-[76px]"><span class="sr-only">Day</span></th>
        <th scope="col" class="w-[88px]"><span class="sr-only">Host</span></th>
        <th scope="col" class="relative h-6 text-[13px] font-normal text-muted">
          <span class="sr-only">Time</span>
          {#each marks as minute (minute)}
            <span aria-hidden="true" class="absolute top-0.5 -translate-x-1/2" style={placeOn(axis, minute, minute)}>{minute / 60}</span>
          {/each}
        </th>
      </tr>
    </thead>
    {#each board.days as day (day.date)}
      <tbody class="border-t border-line">
        {#each hosts as host, i (host.id)}
          {@const bars = barsOf(day, host.id)}
          <tr>
            {#if i === 0}
              <th scope="rowgroup" rowspan={hosts.length} class="pt-1.5 pr-2 text-left align-top">
                <span class="font-heading block leading-tight">{dayName(day.date)}</span>
                <span class="block text-[12px] font-normal text-muted">{day.date === today ? 'today' : monthName(day.date)}</span>
              </th>
            {/if}
            <th scope="row" class="truncate pr-2 text-left text-[13px] font-normal text-muted">{host.name.split(' ')[0]}</th>
            <td class="relative h-[23px] p-0">
              <div class="absolute inset-0" aria-hidden="true">
                {#each marks as minute (minute)}<span class="absolute inset-y-0 border-l border-line" style={placeOn(axis, minute, minute)}></span>{/each}
              </div>
              <ul class="absolute inset-0" aria-label="{host.name}, {longDate(day.date)}">
                {#each bars as bar, b (b)}<BoardBar {bar} zone={board.zone} style={placeOn(axis, bar.fromMinute, bar.toMinute)} label={labelOf(bar)} />{/each}
              </ul>
            </td>
          </tr>
        {/each}
      </tbody>
    {/each}
  </table>
  <ul class="mt-3 flex flex-wrap gap-x-5 gap-y-1 text-[13px] text-muted" aria-label="What the bars mean">
    <li class="inline-flex items-center gap-1.5"><span class="h-2.5 w-5 rounded-sm bg-glow-tint"></span>within hours and free</li>
    <li class="inline-flex items-center gap-1.5"><span class="h-2.5 w-5 rounded-sm bg-busy"></span>busy by a calendar</li>
    <li class="inline-flex items-center gap-1.5"><span class="h-2.5 w-5 rounded-sm border border-dashed border-edge"></span>in a calendar, but marked free</li>
    <li class="inline-flex items-center gap-1.5"><span class="h-2.5 w-5 rounded-sm bg-sea"></span>booked here</li>
  </ul>
</div>
