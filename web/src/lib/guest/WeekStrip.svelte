<script lang="ts">
  import { dayMonth, monthYear } from '$lib/time/format';
  import { say, sayCount } from '$lib/words/say.svelte';
  import { datesOf, type Week } from './days';

  interface Props {
    weeks: Week[];
    /** How many openings a date has. */
    countOf: (date: string) => number;
    chosen: string;
    onchoose: (monday: string) => void;
  }

  let { weeks, countOf, chosen, onchoose }: Props = $props();

  const most = $derived(Math.max(1, ...weeks.flatMap((week) => week.dates.map(countOf))));
  const BAR = 24;
  const LONG = 6;

  let strip: HTMLElement;

  // The chosen week is brought into the strip's view; the page itself stays where it is.
  $effect(() => {
    const button = strip.querySelector<HTMLElement>(`[data-week="${chosen}"]`);
    if (!button) return;
    const from = button.offsetLeft;
    const to = from + button.offsetWidth;
    if (from < strip.scrollLeft || to > strip.scrollLeft + strip.clientWidth)
      strip.scrollLeft = from - (strip.clientWidth - button.offsetWidth) / 2;
  });

  function heightOf(date: string): number {
    const count = countOf(date);
    return count === 0 ? 2 : Math.max(5, Math.round((count / most) * BAR));
  }

  // A long row is read by its months, each named above its first week.
  const months = $derived.by(() => {
    const groups: { name: string; weeks: Week[] }[] = [];
    for (const week of weeks) {
      const name = monthYear(week.dates[0] ?? week.monday);
      const last = groups.at(-1);
      if (last?.name === name) last.weeks.push(week);
      else groups.push({ name, weeks: [week] });
    }
    return groups;
  });

  function totalOf(week: Week): number {
    return week.dates.reduce((sum, date) => sum + countOf(date), 0);
  }
</script>

<nav bind:this={strip} aria-label={say('weeks')} class="relative flex max-w-full min-w-0 gap-2 overflow-x-auto pb-1">
  {#each months as month (month.name)}
    <div class="shrink-0">
      {#if weeks.length > LONG}<p class="sticky left-0 w-max px-2 pb-0.5 text-xs font-semibold">{month.name}</p>{/if}
      <div class="flex gap-2">
        {#each month.weeks as week (week.monday)}
          {@const isChosen = week.monday === chosen}
          <button
            type="button"
            data-week={week.monday}
            aria-current={isChosen ? 'true' : undefined}
            class="w-[105px] shrink-0 rounded-xl border px-2 pt-2 pb-1.5 text-left {isChosen
              ? 'border-line-strong bg-card shadow-sm'
              : 'border-transparent hover:border-line'}"
            onclick={() => onchoose(week.monday)}
          >
            <span class="block text-xs text-muted"
              ><span class="sr-only">{say('weeks.of')} </span>{dayMonth(week.monday)}<span class="sr-only"
                >: {sayCount(totalOf(week), 'openings')}</span
              ></span
            >
            <span class="mt-1 flex h-6 items-end gap-1" aria-hidden="true">
              {#each datesOf(week.monday) as date (date)}
                <span
                  class="w-2 rounded-t-[3px] {countOf(date) > 0 ? 'bg-glow-bar' : 'bg-line-strong'}"
                  style:height="{heightOf(date)}px"
                ></span>
              {/each}
            </span>
          </button>
        {/each}
      </div>
    </div>
  {/each}
</nav>
