<script lang="ts">
  import { dayMonth } from '$lib/time/format';
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

  function totalOf(week: Week): number {
    return week.dates.reduce((sum, date) => sum + countOf(date), 0);
  }
</script>

<nav bind:this={strip} aria-label={say('weeks')} class="relative flex max-w-full min-w-0 gap-2 overflow-x-auto pb-1">
  {#each weeks as week (week.monday)}
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
</nav>
