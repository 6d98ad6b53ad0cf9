<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { barInWords, labelOf } from './bars';

  interface Props {
    bar: Schemas['BoardBar'];
    zone: string;
    style: string;
  }

  let { bar, zone, style }: Props = $props();

  const looks: Record<Schemas['BarKind'], string> = {
    hours: 'bg-glow-tint inset-y-[4px]',
    leave: 'border border-dashed border-edge bg-lane text-muted inset-y-[4px]',
    block: 'border border-glow bg-glow-tint text-on-tint inset-y-[3px]',
    busy: 'bg-busy text-on-busy inset-y-[3px] ring-1 ring-card',
    free: 'border border-dashed border-edge text-muted inset-y-[3px]',
    offered: 'border border-dashed border-violet bg-card text-ink inset-y-[3px]',
    held: 'hatched border border-violet bg-violet-tint text-ink inset-y-[3px]',
    booked: 'bg-sea text-card font-semibold inset-y-[3px] ring-1 ring-card',
  };

  const said = $derived(barInWords(bar, zone));
</script>

<li
  data-outside={bar.outside ? bar.outside.change : undefined}
  class="absolute overflow-hidden rounded-[5px] px-1.5 text-tiny leading-[17px] whitespace-nowrap {looks[
    bar.kind
  ]} {bar.tentative ? 'border border-dashed border-on-busy' : ''} {bar.outside
    ? 'outline-2 -outline-offset-2 outline-dashed outline-brick'
    : ''}"
  {style}
  title={said}
>
  <span class="sr-only">{said}</span><span aria-hidden="true">{labelOf(bar)}</span>
</li>
