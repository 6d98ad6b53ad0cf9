<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { hourLines, placeOn, type MinuteSpan } from '$lib/lanes/spans';
  import { cityOf } from '$lib/time/clock';
  import { dayName, fullDate, longDate, monthName } from '$lib/time/format';
  import BoardLane from './BoardLane.svelte';
  import BoardLegend from './BoardLegend.svelte';
  import FreeLane from './FreeLane.svelte';
  import { hoursOf } from './axis';
  import type { DaySpan } from './moving';
  import { nightsOn } from './nights';
  import { laneId, laneOf, type BoardPiece, type BoardSpan } from './pieces';
  import { aheadInWords, besideLabel, minutesAhead } from './zones';

  interface Props {
    board: Schemas['BoardAnswer'];
    /** Whose lanes are shown, in this order. */
    hosts: Schemas['BoardHost'][];
    today: string;
    /** One lane more a day, for when all or any of them are free. */
    together?: 'all' | 'any' | undefined;
    /** A second zone whose hours stand beside the board's. */
    beside?: string | undefined;
    /** The guest's zone, where it is known: their night is shaded. */
    nightOf?: string | undefined;
    /** What can be changed on the board; where it is of a block, the block's own bar is left out. */
    pieces?: BoardPiece[];
    /** Where openings begin that something can be moved to, on the lanes of these hosts. */
    lit?: { hosts: readonly string[]; spans: readonly DaySpan[] } | undefined;
    /** Minutes of what a press puts down, where it is always as long. */
    length?: number | undefined;
    /** What is painted here. */
    paints?: 'office hours' | 'times' | 'stretches';
    /** What stands beneath a date instead of its month. */
    beneath?: (date: string) => string;
    /** Called where somebody asks about a whole day. */
    onday?: (date: string) => void;
    /** Whether time of this host may be painted. */
    mayPaint?: (host: Schemas['BoardHost']) => boolean;
    onpaint?: (span: BoardSpan) => void;
    onchange?: (key: string, span: BoardSpan) => void;
    onerase?: (key: string) => void;
    onpick?: (key: string) => void;
    /** A bar that leads somewhere was pressed. */
    onlead?: (path: string) => void;
  }

  let {
    board,
    hosts,
    today,
    together,
    beside,
    nightOf,
    pieces = [],
    lit,
    length,
    paints = 'office hours',
    beneath,
    onday,
    mayPaint = () => false,
    onpaint,
    onchange,
    onerase,
    onpick,
    onlead,
  }: Props = $props();

  const axis = $derived(hoursOf(board, new Set(hosts.map((host) => host.id))));
  const hours = $derived(hourLines(axis));
  const ahead = $derived(beside ? minutesAhead(board.zone, beside, board.days[0]?.date ?? today) : 0);
  const rows = $derived(hosts.length + (together ? 1 : 0));
  const lanes = $derived(board.days.flatMap((day) => hosts.map((host) => laneId(day.date, host.id))));
  let pointed = $state('');
  let current = $state<string | undefined>(undefined);
  // One stop of the tab key for the whole board; up and down lead from lane to lane.
  const stop = $derived(current !== undefined && lanes.includes(current) ? current : lanes[0]);

  function barsOf(day: Schemas['BoardDay'], host: string): Schemas['BoardBar'][] {
    const bars = day.lanes.find((lane) => lane.hostId === host)?.bars ?? [];
    return pieces.length === 0
      ? bars
      : bars.filter(
          (bar) =>
            !(
              bar.block &&
              pieces.some(
                (piece) =>
                  piece.hostId === host &&
                  piece.date === day.date &&
                  piece.from === bar.fromMinute &&
                  piece.key.startsWith(bar.block?.pageId ?? '-'),
              )
            ),
        );
  }

  const nightsWithin = (nights: MinuteSpan[]): MinuteSpan[] =>
    nights.filter((night) => night.to > axis.from && night.from < axis.to);

  function step(event: KeyboardEvent): void {
    const id = (event.target as HTMLElement).dataset['lane'];
    if (id === undefined || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    const next = lanes[lanes.indexOf(id) + (event.key === 'ArrowUp' ? -1 : 1)];
    if (next === undefined) return;
    event.preventDefault();
    current = next;
    (event.currentTarget as HTMLElement).querySelector<HTMLElement>(`[data-lane="${next}"]`)?.focus();
  }
</script>

<!-- Arrow keys lead from lane to lane; each lane is a control of its own. -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
  role="region"
  aria-label="Board"
  class="rounded-2xl border border-line bg-card px-3.5 pt-2 pb-3 max-md:px-2"
  onkeydown={step}
  onfocusin={(event) => (current = (event.target as HTMLElement).dataset['lane'] ?? current)}
>
  <table class="w-full table-fixed border-collapse">
    <caption class="sr-only"
      >Days down, a lane for each host, hours from left to right. Up and down lead from lane to lane, left and right
      through the day, space paints.</caption
    >
    <thead>
      <tr>
        <th scope="col" class="w-[76px] max-md:hidden"><span class="sr-only">Day</span></th>
        <th scope="col" class="w-[88px] text-left text-small font-normal text-muted max-md:w-[62px]"
          >{beside ? cityOf(board.zone) : ''}<span class="sr-only">Host</span></th
        >
        <th scope="col" class="relative h-6 text-fine font-normal text-muted">
          <span class="sr-only">Time</span>
          {#each hours as minute (minute)}
            <span
              aria-hidden="true"
              class="absolute top-0.5 -translate-x-1/2 {(minute / 60) % 2 ? 'max-md:hidden' : ''}"
              style={placeOn(axis, minute, minute)}>{minute / 60}</span
            >
          {/each}
        </th>
      </tr>
      {#if beside}
        <tr>
          <td class="max-md:hidden"></td>
          <th scope="col" class="text-left text-small font-normal text-muted">{cityOf(beside)}</th>
          <th scope="col" class="relative h-5 text-small font-normal text-muted">
            <span class="sr-only">{aheadInWords(ahead)}</span>
            {#each hours as minute (minute)}
              <span
                aria-hidden="true"
                class="absolute top-0 -translate-x-1/2 whitespace-nowrap {(minute / 60) % 2 ? 'max-md:hidden' : ''}"
                style={placeOn(axis, minute, minute)}>{besideLabel(minute, ahead)}</span
              >
            {/each}
          </th>
        </tr>
      {/if}
    </thead>
    {#each board.days as day (day.date)}
      {@const nights = nightOf ? nightsWithin(nightsOn(day.date, board.zone, nightOf)) : []}
      {@const aheadNow = beside ? minutesAhead(board.zone, beside, day.date) : 0}
      <tbody class="border-t border-line">
        <tr class="md:hidden"
          ><th colspan="2" scope="rowgroup" class="font-heading pt-1.5 text-left">{longDate(day.date)}</th></tr
        >
        {#each hosts as host, i (host.id)}
          {@const id = laneId(day.date, host.id)}
          {@const canPaint = onpaint !== undefined && mayPaint(host)}
          <tr>
            {#if i === 0}
              <th scope="rowgroup" rowspan={rows} class="pt-1.5 pr-2 text-left align-top max-md:hidden">
                {#if onday}<button
                    type="button"
                    class="font-heading block leading-tight underline decoration-line-strong decoration-dotted underline-offset-4"
                    title="Why is {fullDate(day.date)} not open?"
                    onclick={() => onday(day.date)}
                    >{dayName(day.date)}<span class="sr-only">: why is it not open?</span></button
                  >{:else}<span class="font-heading block leading-tight" title={fullDate(day.date)}
                    >{dayName(day.date)}</span
                  >{/if}
                <span class="block text-small font-normal text-muted"
                  >{beneath?.(day.date) || (day.date === today ? 'today' : monthName(day.date))}</span
                >
                {#if beside && aheadNow !== ahead}<span class="block text-tiny font-normal text-amber-text"
                    >{cityOf(beside)} {aheadInWords(aheadNow)}</span
                  >{/if}
              </th>
            {/if}
            <th scope="row" class="truncate pr-2 text-left text-fine font-normal text-muted"
              >{host.kind === 'person' ? host.name.split(' ')[0] : host.name}</th
            >
            <td class="relative h-[23px] p-0">
              <BoardLane
                {id}
                {host}
                date={day.date}
                bars={barsOf(day, host.id)}
                pieces={pieces.filter((piece) => piece.hostId === host.id && piece.date === day.date)}
                {axis}
                {hours}
                zone={board.zone}
                isTabStop={stop === id}
                {nights}
                nightIn={nightOf ? cityOf(nightOf) : undefined}
                lit={lit?.hosts.includes(host.id) ? lit.spans.filter((span) => span.date === day.date) : []}
                {length}
                onpaint={canPaint ? (span) => onpaint({ ...span, date: day.date, hostId: host.id }) : undefined}
                onchange={onchange ? (key, span, lane) => onchange(key, { ...span, ...laneOf(lane) }) : undefined}
                {onerase}
                {onpick}
                {onlead}
                onpoint={(said) => (pointed = `${longDate(day.date)}, ${host.name}: ${said}`)}
              />
            </td>
          </tr>
        {/each}
        {#if together}<FreeLane
            runs={together === 'all' ? day.allFree : day.anyFree}
            {together}
            date={day.date}
            {axis}
            zone={board.zone}
          />{/if}
      </tbody>
    {/each}
  </table>
  <p class="mt-2 min-h-6 text-sm" data-test="pointed">
    {#if pointed}{pointed}{:else}<span class="text-muted"
        >Point at a bar, or press in a lane, to read what is there.</span
      >{/if}
  </p>
  <BoardLegend
    nightIn={nightOf ? cityOf(nightOf) : undefined}
    {together}
    paints={onpaint === undefined ? undefined : paints}
  />
</div>
