<script lang="ts">
  interface Props {
    /** The city whose night is shaded. */
    nightIn?: string | undefined;
    together: 'all' | 'any' | undefined;
    /** What can be painted; undefined for nothing. */
    paints: 'office hours' | 'times' | 'stretches' | undefined;
  }

  let { nightIn, together, paints }: Props = $props();
</script>

<ul class="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-fine text-muted" aria-label="What the bars mean">
  <li class="inline-flex items-center gap-1.5">
    <span class="h-2.5 w-5 rounded-sm bg-glow-tint"></span>within hours and free
  </li>
  {#if paints === 'times'}<li class="inline-flex items-center gap-1.5">
      <span class="h-2.5 w-5 rounded-sm border-2 border-ink bg-glow"></span>offered
    </li>{/if}
  {#if paints === undefined || paints === 'office hours'}<li class="inline-flex items-center gap-1.5">
      <span class="h-2.5 w-5 rounded-sm border border-glow bg-glow-tint"></span>office hours
    </li>{/if}
  <li class="inline-flex items-center gap-1.5"><span class="h-2.5 w-5 rounded-sm bg-busy"></span>busy by a calendar</li>
  <li class="inline-flex items-center gap-1.5">
    <span class="h-2.5 w-5 rounded-sm border border-dashed border-edge"></span>marked free, or away
  </li>
  <li class="inline-flex items-center gap-1.5">
    <span class="h-2.5 w-5 rounded-sm border border-dashed border-violet"></span>{paints === 'times' ||
    paints === 'stretches'
      ? 'offered by another link'
      : 'offered by a link'}
  </li>
  <li class="inline-flex items-center gap-1.5">
    <span class="hatched h-2.5 w-5 rounded-sm border border-violet bg-violet-tint"></span>held
  </li>
  <li class="inline-flex items-center gap-1.5"><span class="h-2.5 w-5 rounded-sm bg-sea"></span>booked here</li>
  {#if nightIn}<li class="inline-flex items-center gap-1.5">
      <span class="h-2.5 w-5 bg-ink/15"></span>night in {nightIn}
    </li>{/if}
  {#if together}<li class="inline-flex items-center gap-1.5">
      <span class="h-2.5 w-5 bg-glow-bar"></span>{together === 'all' ? 'all of them free' : 'at least one free'}
    </li>{/if}
</ul>
{#if paints === 'office hours'}
  <p class="mt-1 text-fine text-muted">
    Drag in a lane to start office hours. By keyboard: arrows move, space starts and ends, Esc leaves off; on a bar, alt
    and arrows move it, shift and arrows stretch it, delete erases it.
  </p>
{:else if paints === 'stretches'}
  <p class="mt-1 text-fine text-muted">
    Drag in a lane to paint a stretch; what is free in it is offered. By keyboard: arrows move, space starts and ends;
    delete erases.
  </p>
{:else if paints === 'times'}
  <p class="mt-1 text-fine text-muted">
    Press in a lane to pick a time, or drag to fill a stretch; drag a time to move it. By keyboard: arrows move, space
    picks; delete erases.
  </p>
{/if}
