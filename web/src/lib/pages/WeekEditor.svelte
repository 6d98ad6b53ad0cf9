<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { timeOfDay } from './timeOfDay';
  import { weekdays, type Week } from './form';

  interface Props {
    week: Week;
    /** What to mend in a day's times. */
    mendsOf: (day: keyof Week) => string[];
  }

  let { week = $bindable(), mendsOf }: Props = $props();

  function add(day: keyof Week): void {
    const last = week[day].at(-1);
    const after = last ? Number(last.to.slice(0, 2)) + 1 : 9;
    const from = Number.isNaN(after) ? 9 : Math.min(after, 22);
    week[day] = [...week[day], { from: timeOfDay(String(from)), to: timeOfDay(String(Math.min(from + 3, 24))) }];
  }

  function remove(day: keyof Week, index: number): void {
    week[day] = week[day].filter((_, other) => other !== index);
  }

  /** Gives the days from Monday to Friday the same times as one of them. */
  function copyToWorkdays(from: keyof Week): void {
    for (const day of weekdays.slice(0, 5)) week[day.key] = week[from].map((time) => ({ ...time }));
  }
</script>

<table class="w-full">
  <caption class="sr-only">Open times of each weekday</caption>
  <tbody>
    {#each weekdays as day (day.key)}
      {@const open = week[day.key]}
      {@const mends = mendsOf(day.key)}
      <tr class="border-t border-line first:border-t-0">
        <th scope="row" class="w-14 py-2 text-left align-top font-normal {open.length === 0 ? 'text-muted' : ''}"><span class="inline-block pt-1.5">{day.short}</span></th>
        <td class="py-1.5">
          <div class="flex flex-wrap items-center gap-x-4 gap-y-1.5">
            {#each open as time, i (i)}
              <span class="inline-flex items-center gap-1">
                <span class="w-[66px]"><Input aria-label="{day.name}, from" value={time.from} onchange={(event) => (time.from = timeOfDay(event.currentTarget.value))} class="px-2 py-1.5 text-center" /></span>
                –
                <span class="w-[66px]"><Input aria-label="{day.name}, to" value={time.to} onchange={(event) => (time.to = timeOfDay(event.currentTarget.value))} class="px-2 py-1.5 text-center" /></span>
                <button type="button" aria-label="{day.name}: take away {time.from} to {time.to}" class="h-8 w-7 rounded hover:bg-lane" onclick={() => remove(day.key, i)}>×</button>
              </span>
            {:else}
              <span class="text-muted">closed</span>
            {/each}
            <button type="button" aria-label="{day.name}: add open times" class="min-h-8 rounded-lg border border-dashed border-edge px-2.5 text-sm hover:bg-lane" onclick={() => add(day.key)}>+ times</button>
            {#if day.key === 'mon' && open.length > 0}
              <button type="button" class="text-sm underline underline-offset-4" onclick={() => copyToWorkdays('mon')}>Tue to Fri the same</button>
            {/if}
          </div>
          {#each mends as mend (mend)}<p class="mt-1 text-sm text-brick" role="alert">{mend}</p>{/each}
        </td>
      </tr>
    {/each}
  </tbody>
</table>
