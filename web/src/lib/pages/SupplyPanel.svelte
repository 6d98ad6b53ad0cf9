<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import type { Problem } from '$lib/api/problem';
  import type { DarkQuestion } from '$lib/supply/DarkQuestion.svelte';
  import { emptyWords } from '$lib/supply/reasons';
  import { cityOf } from '$lib/time/clock';
  import { counted, dayName, lengthOf, monthName, shortDate } from '$lib/time/format';
  import { weekChoices, type Weeks } from './EditorState.svelte';
  import { axisOf, barsOf, darkAround, lostOf } from './lanes';

  interface Props {
    supply: Schemas['SupplyAnswer'] | undefined;
    problem: Problem | undefined;
    /** The starts of the page as guests have it, to tell what changes add. */
    before: ReadonlySet<string> | undefined;
    /** The page as guests have it, to tell what changes take. */
    was: Schemas['SupplyAnswer'] | undefined;
    change: { gained: number; lost: number };
    durations: readonly number[];
    weeks: Weeks;
    dark: DarkQuestion;
    onduration: (minutes: number) => void;
    onweeks: (weeks: Weeks) => void;
  }

  let { supply, problem, before, was, change, durations, weeks, dark, onduration, onweeks }: Props = $props();

  const days = $derived(supply?.days ?? []);
  const isLater = $derived(supply !== undefined && days[0] !== undefined && days[0].date > supply.today);
  // What was counted before something was refused is of other settings than those on screen.
  const stale = $derived(problem ? 'opacity-50' : '');
  const axis = $derived(axisOf([...days, ...(was?.days ?? [])]));
  const wasByDate = $derived(new Map((was?.days ?? []).map((day) => [day.date, day])));
  /** The day whose lane the keyboard is at. */
  let at = $state(0);
  let list = $state<HTMLOListElement | undefined>(undefined);

  function place(from: number, to: number): string {
    const length = axis.to - axis.from;
    return `left: ${((from - axis.from) / length) * 100}%; width: ${((to - from) / length) * 100}%`;
  }

  function hourOf(minute: number): string {
    return `${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, '0')}`;
  }

  function askDay(day: Schemas['SupplyDay']): void {
    void dark.ask({ date: day.date, fromMinute: axis.from, toMinute: axis.to, isWhole: day.openings.length === 0 });
  }

  /** A pointer asks about the dark stretch it points at; a key about the whole day. */
  function ask(day: Schemas['SupplyDay'], event: MouseEvent & { currentTarget: HTMLElement }): void {
    const lane = event.currentTarget.querySelector('[data-lane]');
    if (event.detail === 0 || !lane || day.openings.length === 0) {
      askDay(day);
      return;
    }
    const { left, width } = lane.getBoundingClientRect();
    const minute = axis.from + ((event.clientX - left) / width) * (axis.to - axis.from);
    const run = darkAround(day, axis, Math.min(axis.to - 1, Math.max(axis.from, minute)));
    if (run) void dark.ask({ date: day.date, fromMinute: run.from, toMinute: run.to, isWhole: false });
    else dark.leave();
  }

  function move(event: KeyboardEvent): void {
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by === 0) return;
    event.preventDefault();
    at = Math.min(days.length - 1, Math.max(0, at + by));
    list?.querySelectorAll<HTMLElement>('button')[at]?.focus();
  }
</script>

<section
  aria-label="Openings in {isLater ? '' : 'the next '}{weeks === 2 ? 'two' : weeks} weeks"
  class="rounded-2xl border border-line bg-card p-4"
>
  {#if supply}
    <div class="{stale} flex flex-wrap items-baseline justify-between gap-x-3 gap-y-1">
      <p aria-live="polite" class="flex items-baseline gap-x-2.5">
        <span data-test="supply-total" class="font-heading text-hero leading-none font-bold">{supply.total}</span>
        <span>
          {supply.total === 1 ? 'opening' : 'openings'}
          {isLater
            ? `in ${String(weeks)} weeks from ${shortDate(days[0]?.date ?? '')}`
            : `in the next ${String(weeks)} weeks`}{#if change.gained > 0}, <strong>{change.gained} more</strong
            >{/if}{#if change.lost > 0}, <strong>{change.lost} fewer</strong>{/if}
          {#if change.gained > 0 || change.lost > 0}<span class="text-muted">by your changes</span>{/if}
          {#if supply.beyondHosts > 0}<span class="block text-sm text-amber-text" data-test="beyond-hosts"
              >{counted(supply.beyondHosts, 'of them lies', 'of them lie')} outside the hosts’ own hours.</span
            >{/if}
        </span>
      </p>
      <span role="group" aria-label="How many weeks" class="text-sm text-muted">
        {#each weekChoices as choice (choice)}
          <button
            type="button"
            aria-pressed={choice === weeks}
            aria-label="{choice} weeks"
            class="min-h-7 min-w-7 rounded-md px-1.5 {choice === weeks
              ? 'bg-chosen text-on-chosen'
              : 'underline underline-offset-4'}"
            onclick={() => onweeks(choice)}>{choice}</button
          >
        {/each}
        weeks
      </span>
    </div>
    {#if durations.length > 1}
      <p class="mt-2 text-sm text-muted">
        counted for
        {#each durations as minutes (minutes)}
          <button
            type="button"
            aria-pressed={minutes === supply.duration}
            class="ml-1 min-h-7 rounded-md px-2 {minutes === supply.duration
              ? 'bg-chosen text-on-chosen'
              : 'underline underline-offset-4'}"
            onclick={() => onduration(minutes)}>{lengthOf(minutes)}</button
          >
        {/each}
      </p>
    {/if}
    {#each supply.empty as cause (`${cause.kind}${cause.host ?? ''}`)}
      <p role="status" class="mt-3 rounded-lg bg-brick-tint px-3 py-2 text-brick-text">
        {emptyWords(cause, lengthOf(supply.duration))}
      </p>
    {/each}
    <ol bind:this={list} class="mt-3 {stale}">
      {#each days as day, i (day.date)}
        <li>
          <button
            type="button"
            tabindex={i === at ? 0 : -1}
            class="grid w-full grid-cols-[58px_1fr_28px] items-center gap-2 rounded min-h-6 text-left text-fine hover:bg-paper {dark
              .asked?.date === day.date
              ? 'bg-paper'
              : ''}"
            onfocus={() => (at = i)}
            onkeydown={move}
            onclick={(event) => ask(day, event)}
          >
            <span
              >{dayName(day.date)}<span class="sr-only">
                {monthName(day.date)}: {counted(day.openings.length, 'opening', 'openings')}. Why not more?</span
              ></span
            >
            <span aria-hidden="true" data-lane class="relative h-[11px] overflow-hidden bg-lane">
              {#each lostOf(day, before ? wasByDate.get(day.date) : undefined) as bar, j (j)}
                <span class="absolute inset-y-0 border border-dashed border-edge" style={place(bar.from, bar.to)}
                ></span>
              {/each}
              {#each barsOf(day, before) as bar, j (j)}
                <span
                  class="absolute inset-y-0 {bar.gained ? 'border-y-2 border-ink bg-glow-tint' : 'bg-glow-bar'}"
                  style={place(bar.from, bar.to)}
                ></span>
              {/each}
            </span>
            <span aria-hidden="true" data-count class="text-right"
              >{day.openings.length === 0 ? '–' : day.openings.length}</span
            >
          </button>
        </li>
      {/each}
    </ol>
    <p class="mt-3 text-fine text-muted">
      {hourOf(axis.from)} to {hourOf(axis.to)}, {cityOf(supply.zone)} time.
      {#if change.gained > 0}<span class="border-y-2 border-ink bg-glow-tint px-2 text-on-tint">outlined</span> comes with
        your changes.{/if}
      {#if change.lost > 0}<span class="border border-dashed border-edge px-2">dashed</span> goes with them.{/if}
      Press a dark stretch to see why nothing is open there.
    </p>
  {:else}
    <p class="text-muted">Counting openings…</p>
  {/if}
  {#if problem}
    <p class="mt-2 text-sm text-brick" role="status">
      {problem.errors ? 'Fix the marked fields to see what this page offers.' : problem.title}
    </p>
  {/if}
</section>
