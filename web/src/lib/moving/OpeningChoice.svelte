<script lang="ts">
  import { Temporal } from 'temporal-polyfill';
  import type { Snippet } from 'svelte';
  import type { Schemas } from '$lib/api/client';
  import DayRow from '$lib/guest/DayRow.svelte';
  import { byDate, shownIn, weeksBetween, type ShownOpening } from '$lib/guest/days';
  import WeekStrip from '$lib/guest/WeekStrip.svelte';

  interface Props {
    openings: Schemas['Opening'][];
    zone: string;
    now: string;
    firstDate: string;
    chosen: ShownOpening | undefined;
    onchoose: (opening: ShownOpening) => void;
    /** What stands beneath the day of the chosen opening. */
    form?: Snippet;
  }

  let { openings, zone, now, firstDate, chosen, onchoose, form }: Props = $props();

  const shown = $derived(shownIn(zone, openings));
  const days = $derived(byDate(shown));
  const local = $derived(Temporal.Instant.from(now).toZonedDateTimeISO(zone));
  const weeks = $derived(weeksBetween(firstDate, shown.at(-1)?.date ?? firstDate).filter((week) => week.dates.some((date) => days.has(date))));
  let turned = $state<string | undefined>(undefined);
  const week = $derived(weeks.find((candidate) => candidate.monday === turned) ?? weeks[0]);
</script>

{#if week}
  <WeekStrip {weeks} countOf={(date) => days.get(date)?.length ?? 0} chosen={week.monday} onchoose={(monday) => (turned = monday)} />
  {#each week.dates.filter((date) => days.has(date)) as date (date)}
    <DayRow
      {date}
      openings={days.get(date) ?? []}
      {zone}
      today={local.toPlainDate().toString()}
      hourNow={local.hour}
      chosen={chosen?.start}
      isShared={false}
      next={null}
      {onchoose}
      form={chosen?.date === date ? form : undefined}
    />
  {/each}
{:else}
  <p class="py-3 text-muted">No other time is open.</p>
{/if}
