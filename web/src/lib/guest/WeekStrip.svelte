<script lang="ts">
  import { dayMonth, monthYear } from '$lib/time/format';
  import { say, sayCount } from '$lib/words/say.svelte';
  import { datesOf, type Week } from './days';

  interface Props {
    weeks: Week[];
    /** How many openings a date has. */
    countOf: (date: string) => number;
    chosen: string;
    /** How many are drawn at the most; the chosen one always is. */
    most?: number | undefined;
    onchoose: (monday: string) => void;
  }

  let { weeks, countOf, chosen, most: mostWeeks, onchoose }: Props = $props();

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

  /** The bars of a week as one path: a phone draws some two hundred at once. */
  function barsOf(week: Week, open: boolean): string {
    return datesOf(week.monday)
      .map((date, day) => {
        if (countOf(date) > 0 !== open) return '';
        const height = heightOf(date);
        const round = Math.min(3, height);
        return `M${String(day * 12)} ${String(BAR)}v${String(round - height)}q0-${String(round)} ${String(round)}-${String(round)}h${String(8 - 2 * round)}q${String(round)} 0 ${String(round)} ${String(round)}V${String(BAR)}z`;
      })
      .join('');
  }

  // A long row is read by its months, each named above its first week.
  const months = $derived.by(() => {
    const groups: { name: string; weeks: Week[] }[] = [];
    const drawn = mostWeeks === undefined ? weeks : weeks.slice(0, Math.max(mostWeeks, 1 + weeks.findIndex(isChosen)));
    for (const week of drawn) {
      const name = monthYear(week.dates[0] ?? week.monday);
      const last = groups.at(-1);
      if (last?.name === name) last.weeks.push(week);
      else groups.push({ name, weeks: [week] });
    }
    return groups;
  });

  function isChosen(week: Week): boolean {
    return week.monday === chosen;
  }

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
          {@const isTurnedTo = isChosen(week)}
          <button
            type="button"
            data-week={week.monday}
            aria-current={isTurnedTo ? 'true' : undefined}
            class="w-[105px] shrink-0 rounded-xl border px-2 pt-2 pb-1.5 text-left {isTurnedTo
              ? 'border-line-strong bg-card shadow-sm'
              : 'border-transparent hover:border-line'}"
            onclick={() => onchoose(week.monday)}
          >
            <span class="block text-xs text-muted"
              ><span class="sr-only">{say('weeks.of')} </span>{dayMonth(week.monday)}<span class="sr-only"
                >: {sayCount(totalOf(week), 'openings')}</span
              ></span
            >
            <svg class="mt-1 block" width="80" height={BAR} aria-hidden="true">
              <path class="fill-line-strong" d={barsOf(week, false)} />
              <path class="fill-glow-bar" d={barsOf(week, true)} />
            </svg>
          </button>
        {/each}
      </div>
    </div>
  {/each}
</nav>
