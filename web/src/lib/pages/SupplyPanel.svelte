<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import type { Problem } from '$lib/api/problem';
  import { cityOf } from '$lib/time/clock';
  import { counted, dayName, lengthOf, longDate } from '$lib/time/format';
  import { axisOf, barsOf } from './lanes';

  interface Props {
    supply: Schemas['SupplyAnswer'] | undefined;
    problem: Problem | undefined;
    /** The starts of the saved page, to tell what unsaved changes add. */
    before: ReadonlySet<string> | undefined;
    change: { gained: number; lost: number };
    durations: readonly number[];
    onduration: (minutes: number) => void;
  }

  let { supply, problem, before, change, durations, onduration }: Props = $props();

  const axis = $derived(axisOf(supply?.days ?? []));
  const hasGained = $derived(change.gained > 0);

  function place(from: number, to: number): string {
    const length = axis.to - axis.from;
    return `left: ${((from - axis.from) / length) * 100}%; width: ${((to - from) / length) * 100}%`;
  }

  function hourOf(minute: number): string {
    return `${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, '0')}`;
  }
</script>

<section aria-label="Openings in the next two weeks" class="rounded-2xl border border-line bg-card p-4">
  {#if supply}
    <p aria-live="polite" class="flex items-baseline gap-x-2.5">
      <span data-test="supply-total" class="font-heading text-[34px] leading-none font-bold">{supply.total}</span>
      <span>
        {supply.total === 1 ? 'opening' : 'openings'} in the next 2 weeks{#if change.gained > 0}, <strong>{change.gained} more</strong>{/if}{#if change.lost > 0}, <strong>{change.lost} fewer</strong>{/if}
        {#if change.gained > 0 || change.lost > 0}<span class="text-muted">by your changes</span>{/if}
      </span>
    </p>
    {#if durations.length > 1}
      <p class="mt-2 text-sm text-muted">
        counted for
        {#each durations as minutes (minutes)}
          <button type="button" aria-pressed={minutes === supply.duration} class="ml-1 min-h-7 rounded-md px-2 {minutes === supply.duration ? 'bg-chosen text-on-chosen' : 'underline underline-offset-4'}" onclick={() => onduration(minutes)}
            >{lengthOf(minutes)}</button
          >
        {/each}
      </p>
    {/if}
    <ol class="mt-3 space-y-[7px] {problem ? 'opacity-50' : ''}">
      {#each supply.days as day (day.date)}
        <li class="grid grid-cols-[58px_1fr_28px] items-center gap-2 text-[13px]" aria-label="{longDate(day.date)}: {counted(day.openings.length, 'opening', 'openings')}">
          <span aria-hidden="true">{dayName(day.date)}</span>
          <span aria-hidden="true" class="relative h-[11px] overflow-hidden bg-lane">
            {#each barsOf(day, before) as bar, i (i)}
              <span class="absolute inset-y-0 {bar.gained ? 'border-y-2 border-ink bg-glow-tint' : 'bg-glow-bar'}" style={place(bar.from, bar.to)}></span>
            {/each}
          </span>
          <span aria-hidden="true" class="text-right">{day.openings.length === 0 ? '–' : day.openings.length}</span>
        </li>
      {/each}
    </ol>
    <p class="mt-3 text-[13px] text-muted">
      {hourOf(axis.from)} to {hourOf(axis.to)}, {cityOf(supply.zone)} time.
      {#if hasGained}<span class="border-y-2 border-ink bg-glow-tint px-2 text-on-tint">outlined</span> comes with your changes.{/if}
    </p>
  {:else}
    <p class="text-muted">Counting openings…</p>
  {/if}
  {#if problem}
    <p class="mt-2 text-sm text-brick" role="status">{problem.errors ? 'Mend the fields marked on this page to see what it offers.' : problem.title}</p>
  {/if}
</section>
