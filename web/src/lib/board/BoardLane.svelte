<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import LaneSurface from '$lib/lanes/LaneSurface.svelte';
  import { placeOn, type Axis, type MinuteSpan } from '$lib/lanes/spans';
  import { longDate } from '$lib/time/format';
  import BoardBar from './BoardBar.svelte';
  import { leadOf, whatIsAt } from './bars';
  import type { BoardPiece } from './pieces';

  interface Props {
    id: string;
    host: Schemas['BoardHost'];
    date: string;
    bars: Schemas['BoardBar'][];
    pieces: BoardPiece[];
    axis: Axis;
    hours: readonly number[];
    zone: string;
    isTabStop: boolean;
    /** When it is night where the guest is, and where that is. */
    nights?: readonly MinuteSpan[];
    nightIn?: string | undefined;
    /** Where openings begin that something can be moved to. */
    lit?: readonly MinuteSpan[];
    /** Minutes of what a press puts down, where it is always as long. */
    length?: number | undefined;
    onpaint?: ((span: MinuteSpan) => void) | undefined;
    onchange?: ((key: string, span: MinuteSpan, lane: string) => void) | undefined;
    onerase?: ((key: string) => void) | undefined;
    onpick?: ((key: string) => void) | undefined;
    onpoint: (said: string) => void;
    /** A bar that leads somewhere was pressed. */
    onlead?: ((path: string) => void) | undefined;
  }

  let {
    id,
    host,
    date,
    bars,
    pieces,
    axis,
    hours,
    zone,
    isTabStop,
    nights = [],
    nightIn,
    lit = [],
    length,
    onpaint,
    onchange,
    onerase,
    onpick,
    onpoint,
    onlead,
  }: Props = $props();

  function said(minute: number): string {
    const opening = lit.some((one) => one.from <= minute && minute < one.from + 15) ? 'an opening; ' : '';
    const what = `${opening}${whatIsAt(bars, minute, zone)}`;
    return nightIn !== undefined && nights.some((night) => night.from <= minute && minute < night.to)
      ? `${what}; night in ${nightIn}`
      : what;
  }

  const within = $derived(bars.filter((bar) => bar.toMinute > axis.from && bar.fromMinute < axis.to));
</script>

<div class="absolute inset-0" aria-hidden="true">
  {#each hours as minute (minute)}<span
      class="absolute inset-y-0 border-l border-line"
      style={placeOn(axis, minute, minute)}
    ></span>{/each}
</div>
<LaneSurface
  {id}
  label="{host.name}, {longDate(date)}"
  {axis}
  {pieces}
  {isTabStop}
  {length}
  describe={said}
  {...onpaint ? { onpaint } : {}}
  {...onchange ? { onchange } : {}}
  {...onerase ? { onerase } : {}}
  {...onpick ? { onpick } : {}}
  onpoint={(minute) => onpoint(said(minute))}
  onpress={(minute) => {
    const path = leadOf(bars, minute);
    if (path !== undefined) onlead?.(path);
  }}
>
  <ul class="absolute inset-0">
    {#each within as bar, index (index)}<BoardBar
        {bar}
        {zone}
        style={placeOn(axis, bar.fromMinute, bar.toMinute)}
      />{/each}
  </ul>
</LaneSurface>
{#each lit as opening (opening.from)}<span
    class="pointer-events-none absolute inset-y-0 w-[5px] rounded-sm border border-ink bg-glow-bar"
    style={placeOn(axis, opening.from, opening.from)}
    data-lit={opening.from}
  ></span>{/each}
{#if nights.length > 0}
  <div class="pointer-events-none absolute inset-0 overflow-hidden" aria-hidden="true" data-test="night">
    {#each nights as night (night.from)}<span
        class="absolute inset-y-0 bg-ink/15"
        style={placeOn(axis, Math.max(night.from, axis.from), Math.min(night.to, axis.to))}
      ></span>{/each}
  </div>
{/if}
