<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Schemas } from '$lib/api/client';
  import { byDate, shownIn, weeksBetween, type ShownOpening } from '$lib/guest/days';
  import WeekStrip from '$lib/guest/WeekStrip.svelte';
  import { dateIn, dayName, longDate, monthName, timeOf, weekday } from '$lib/time/format';
  import { say, sayCount } from '$lib/words/say.svelte';

  interface Props {
    openings: Schemas['Opening'][];
    zone: string;
    now: string;
    firstDate: string;
    /** The starts that are chosen. */
    chosen: readonly string[];
    onchoose: (opening: ShownOpening) => void;
    /** What stands beneath the day of a chosen opening. */
    form?: Snippet;
  }

  let { openings, zone, now, firstDate, chosen, onchoose, form }: Props = $props();

  const shown = $derived(shownIn(zone, openings));
  const days = $derived(byDate(shown));
  const today = $derived(dateIn(now, zone));
  const weeks = $derived(
    weeksBetween(firstDate, shown.at(-1)?.date ?? firstDate).filter((week) =>
      week.dates.some((date) => days.has(date)),
    ),
  );
  let turned = $state<string | undefined>(undefined);
  const week = $derived(weeks.find((candidate) => candidate.monday === turned) ?? weeks[0]);
</script>

{#if week}
  <WeekStrip
    {weeks}
    countOf={(date) => days.get(date)?.length ?? 0}
    chosen={week.monday}
    onchoose={(monday) => (turned = monday)}
  />
  {#each week.dates as date (date)}
    {@const here = days.get(date) ?? []}
    {#if here.length > 0}
      <section aria-label={longDate(date)} class="border-t border-line">
        <div class="grid gap-x-3 gap-y-1 py-2.5 md:grid-cols-[104px_1fr]">
          <h3 class="text-lg leading-tight">
            {dayName(date)}
            <span class="text-fine font-normal text-muted">{date === today ? say('day.today') : monthName(date)}</span>
          </h3>
          <ul
            class="flex flex-wrap gap-2 max-md:grid max-md:grid-cols-[repeat(auto-fill,minmax(80px,1fr))]"
            aria-label={sayCount(here.length, 'openings')}
          >
            {#each here as opening (opening.start)}
              {@const isChosen = chosen.includes(opening.start)}
              <li>
                <button
                  type="button"
                  data-start={opening.start}
                  aria-pressed={isChosen}
                  aria-label="{weekday(date)}, {timeOf(opening.start, zone)}"
                  class="min-h-9 w-full min-w-16 rounded-[10px] border px-2.5 py-1 font-bold max-md:min-h-11 {isChosen
                    ? 'border-chosen bg-chosen text-on-chosen'
                    : 'border-glow-soft bg-glow-tint text-on-tint hover:border-glow-bar hover:bg-glow-soft'}"
                  onclick={() => onchoose(opening)}>{timeOf(opening.start, zone)}</button
                >
              </li>
            {/each}
          </ul>
        </div>
        {#if here.some((opening) => chosen.includes(opening.start))}{@render form?.()}{/if}
      </section>
    {/if}
  {/each}
{:else}
  <p class="py-3 text-muted">{say('move.none')}</p>
{/if}
