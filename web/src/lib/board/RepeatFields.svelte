<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { lastDateMend, monthlyChoices, WEEKDAY_CODES, type Repeat, type WeekdayCode } from './repeats';

  interface Props {
    repeat: Repeat;
    /** The date of the first one. */
    date: string;
    /** What the server says of the rule. */
    mend?: string | undefined;
  }

  let { repeat = $bindable(), date, mend }: Props = $props();

  const shorts = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
  const monthly = $derived(monthlyChoices(date));
  const said = $derived(lastDateMend(repeat, date) ?? mend);
  const units = {
    once: ['', ''],
    daily: ['day', 'days'],
    weekly: ['week', 'weeks'],
    monthlyDate: ['month', 'months'],
    monthlyDay: ['month', 'months'],
  } as const;

  function toggle(code: WeekdayCode): void {
    const days = repeat.days.includes(code) ? repeat.days.filter((one) => one !== code) : [...repeat.days, code];
    // One day is left in any case.
    if (days.length > 0) repeat = { ...repeat, days };
  }
</script>

<div class="space-y-2">
  <Select
    aria-label="How often"
    placeholder=""
    value={repeat.how}
    onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
      (repeat = { ...repeat, how: event.currentTarget.value as Repeat['how'] })}
    items={[
      { value: 'once', name: 'Once' },
      { value: 'daily', name: 'Every day' },
      { value: 'weekly', name: 'Every week' },
      { value: 'monthlyDate', name: monthly.monthlyDate },
      { value: 'monthlyDay', name: monthly.monthlyDay },
    ]}
  />
  {#if repeat.how === 'weekly'}
    <div role="group" aria-label="On these days" class="flex flex-wrap gap-1.5">
      {#each WEEKDAY_CODES as code, i (code)}
        {@const isOn = repeat.days.includes(code)}
        <button
          type="button"
          aria-pressed={isOn}
          class="min-h-9 rounded-lg border px-2.5 {isOn
            ? 'border-chosen bg-chosen text-on-chosen'
            : 'border-dashed border-edge text-muted'}"
          onclick={() => toggle(code)}>{shorts[i]}</button
        >
      {/each}
    </div>
  {/if}
  {#if repeat.how !== 'once'}
    <p class="flex flex-wrap items-center gap-2 text-muted">
      every <span class="inline-block w-16"
        ><Input
          type="number"
          aria-label="Every so many"
          min={1}
          max={52}
          class="py-1.5"
          bind:value={() => repeat.every, (every) => (repeat = { ...repeat, every: Math.max(Number(every) || 1, 1) })}
        /></span
      >
      {units[repeat.how][repeat.every === 1 ? 0 : 1]},
      <span class="inline-block w-28"
        ><Select
          aria-label="It ends"
          placeholder=""
          classes={{ select: 'py-1.5' }}
          value={repeat.ends}
          onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
            (repeat = { ...repeat, ends: event.currentTarget.value as Repeat['ends'] })}
          items={[
            { value: 'until', name: 'until' },
            { value: 'count', name: 'as often as' },
          ]}
        /></span
      >
      {#if repeat.ends === 'until'}
        <span class="inline-block w-44"
          ><Input
            aria-label="Last date"
            type="date"
            class="py-1.5"
            aria-invalid={said !== undefined}
            bind:value={() => repeat.until, (until) => until && (repeat = { ...repeat, until })}
          /></span
        >
      {:else}
        <span class="inline-block w-20"
          ><Input
            aria-label="How many times"
            type="number"
            min={1}
            max={1000}
            class="py-1.5"
            bind:value={() => repeat.count, (count) => (repeat = { ...repeat, count: Math.max(Number(count) || 1, 1) })}
          /></span
        > times
      {/if}
    </p>
  {/if}
  {#if said}<p class="text-sm text-brick" role="alert">{said}</p>{/if}
</div>
