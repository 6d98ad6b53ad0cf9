<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { dateIn, dayName, timeOf } from '$lib/time/format';

  interface Props {
    bar: Schemas['BoardBar'];
    zone: string;
    style: string;
    /** Written on the bar. */
    label: string;
  }

  let { bar, zone, style, label }: Props = $props();

  const kinds = { hours: 'open hours', busy: 'busy', free: 'marked free', booked: 'booked' } as const;
  const looks = {
    hours: 'bg-glow-tint inset-y-[4px]',
    busy: 'bg-busy text-on-busy inset-y-[3px] ring-1 ring-card',
    free: 'border border-dashed border-edge text-muted inset-y-[3px]',
    booked: 'bg-sea text-card font-semibold inset-y-[3px] ring-1 ring-card',
  } as const;

  const span = $derived.by(() => {
    if (bar.wholeDay) return 'whole day';
    const [from, to] = [dateIn(bar.start, zone), dateIn(bar.end, zone)];
    return `${timeOf(bar.start, zone)} to ${timeOf(bar.end, zone)}${from === to ? '' : ` (${dayName(from)} to ${dayName(to)})`}`;
  });
  const said = $derived([bar.title, `${kinds[bar.kind]}${bar.tentative ? ', tentative' : ''}`, span, bar.source].filter((part) => part !== '').join(', '));
</script>

<li
  class="absolute overflow-hidden rounded-[5px] px-1.5 text-[11.5px] leading-[17px] whitespace-nowrap {looks[bar.kind]} {bar.tentative ? 'border border-dashed border-on-busy' : ''}"
  {style}
  title={said}
>
  <span class="sr-only">{said}</span><span aria-hidden="true">{label}</span>
</li>
