<script lang="ts">
  import { Temporal } from 'temporal-polyfill';
  import { fullDate, monthName } from '$lib/time/format';
  import { changeInWords, datesInWords, runsOfYear, type Change } from './changes';

  let { changes, today }: { changes: Change[]; today: string } = $props();

  const DAYS = 365;
  const first = $derived(Temporal.PlainDate.from(today).with({ day: 1 }));
  const runs = $derived(runsOfYear(changes, first.toString(), DAYS));
  const months = $derived(Array.from({ length: 12 }, (_, index) => first.add({ months: index })));
  const at = (day: number): string => `${(day / DAYS) * 100}%`;
  const dayOf = (date: Temporal.PlainDate): number => first.until(date, { largestUnit: 'days' }).days;

  function said(run: { day: number; length: number; index: number }): string {
    const change = changes[run.index];
    const [from, to] = [first.add({ days: run.day }), first.add({ days: run.day + run.length - 1 })];
    return change
      ? `${fullDate(from.toString())}${run.length > 1 ? ` to ${fullDate(to.toString())}` : ''}: ${changeInWords(change)} (${datesInWords(change)})`
      : '';
  }
</script>

<figure aria-label="A year of changes" class="mb-1">
  <div class="relative h-5 text-small text-muted" aria-hidden="true">
    {#each months as month (month.toString())}
      <span class="absolute top-0 truncate" style="left: {at(dayOf(month))}; width: {at(30)}"
        >{monthName(month.toString()).slice(0, 3)}</span
      >
    {/each}
  </div>
  <div class="relative h-7 overflow-hidden rounded bg-lane">
    {#each months as month (month.toString())}<span
        aria-hidden="true"
        class="absolute inset-y-0 border-l border-line-strong"
        style="left: {at(dayOf(month))}"
      ></span>{/each}
    <span
      aria-hidden="true"
      class="absolute inset-y-0 w-0.5 bg-ink"
      style="left: {at(dayOf(Temporal.PlainDate.from(today)))}"
    ></span>
    <ul>
      {#each runs as run (run.day)}
        <li
          class="absolute min-w-[3px] {run.closed
            ? 'inset-y-0 bg-edge'
            : 'inset-y-[7px] border border-ink bg-glow-bar'}"
          style="left: {at(run.day)}; width: {at(run.length)}"
          title={said(run)}
        >
          <span class="sr-only">{said(run)}</span>
        </li>
      {/each}
    </ul>
  </div>
  <figcaption class="mt-1 flex flex-wrap gap-x-5 text-fine text-muted">
    <span class="inline-flex items-center gap-1.5"><span class="h-3 w-2 bg-edge"></span>closed</span>
    <span class="inline-flex items-center gap-1.5"
      ><span class="h-2 w-3 border border-ink bg-glow-bar"></span>other times</span
    >
    <span class="inline-flex items-center gap-1.5"><span class="h-3 w-0.5 bg-ink"></span>today</span>
  </figcaption>
</figure>
