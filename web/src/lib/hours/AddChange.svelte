<script lang="ts">
  import Mend from '$lib/ui/Mend.svelte';
  import { Input } from 'flowbite-svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import { covers, type Change } from './changes';
  import { readDay } from './typed';
  import { weekdays, type WeekdayKey } from './week';

  let { today, onadd, onclose }: { today: string; onadd: (change: Change) => void; onclose: () => void } = $props();

  let kind = $state<'date' | 'run' | 'weekdays'>('date');
  // Today is only where the choice starts.
  // svelte-ignore state_referenced_locally
  let from = $state(today);
  // svelte-ignore state_referenced_locally
  let to = $state(today);
  let days = $state<WeekdayKey[]>([]);
  let closed = $state<'closed' | 'open'>('closed');
  let times = $state('');
  let name = $state('');
  let mends = $state.raw<Partial<Record<'from' | 'to' | 'days' | 'times', string>>>({});

  function add(event: SubmitEvent): void {
    event.preventDefault();
    const day = closed === 'closed' ? { open: [] } : readDay(times);
    const last = kind === 'date' ? from : to;
    const change: Change = {
      from,
      to: last,
      open: day.open,
      name: name.trim() === '' ? null : name.trim(),
      weekdays: kind === 'weekdays' ? days : null,
    };
    const firstWeek = [0, 1, 2, 3, 4, 5, 6].map((ahead) =>
      new Date(Date.parse(`${from}T00:00:00Z`) + ahead * 86_400_000).toISOString().slice(0, 10),
    );
    const found: typeof mends = {};
    if (from === '') found.from = 'Choose a date.';
    else if (last === '' || last < from) found.to = 'Choose a last date on or after the first.';
    else if (kind === 'weekdays' && (days.length === 0 || !firstWeek.some((date) => covers(change, date))))
      found.days = 'Choose at least one weekday that lies between the dates.';
    if (closed === 'open' && (day.mend !== undefined || day.open.length === 0))
      found.times = day.mend ?? 'Write the times, such as 9–12, 13–15.';
    mends = found;
    if (Object.keys(found).length === 0) onadd(change);
  }

  function toggle(key: WeekdayKey): void {
    days = days.includes(key)
      ? days.filter((other) => other !== key)
      : weekdays.filter((day) => day.key === key || days.includes(day.key)).map((day) => day.key);
  }
</script>

<form
  novalidate
  aria-label="Add a dated change"
  class="space-y-3 rounded-lg border border-line bg-paper p-4"
  onsubmit={add}
>
  <Segments
    label="Which dates"
    options={[
      { value: 'date', text: 'One date' },
      { value: 'run', text: 'A run of dates' },
      { value: 'weekdays', text: 'Some weekdays of a run' },
    ] as const}
    value={kind}
    onchoose={(value) => (kind = value)}
  />
  <div class="flex flex-wrap gap-4">
    <Field label={kind === 'date' ? 'Date' : 'From'} id="change-from" class="w-44" mend={mends.from}
      ><Input id="change-from" type="date" bind:value={from} /></Field
    >
    {#if kind !== 'date'}<Field label="To" id="change-to" class="w-44" mend={mends.to}
        ><Input id="change-to" type="date" min={from} bind:value={to} /></Field
      >{/if}
    <Field label="What it is" id="change-name" class="min-w-48 flex-1"
      ><Input id="change-name" placeholder="a holiday, say, or nothing" bind:value={name} /></Field
    >
  </div>
  {#if kind === 'weekdays'}
    <div>
      <div role="group" aria-label="Weekdays" class="flex flex-wrap gap-1.5">
        {#each weekdays as day (day.key)}
          <button
            type="button"
            aria-pressed={days.includes(day.key)}
            class="min-h-9 rounded-lg border px-3 {days.includes(day.key)
              ? 'border-chosen bg-chosen text-on-chosen'
              : 'border-line-strong bg-card hover:bg-lane'}"
            onclick={() => toggle(day.key)}>{day.short}</button
          >
        {/each}
      </div>
      {#if mends.days}<Mend words={mends.days} />{/if}
    </div>
  {/if}
  <div class="flex flex-wrap items-start gap-3">
    <Segments
      label="Closed or open"
      options={[
        { value: 'closed', text: 'Closed' },
        { value: 'open', text: 'Other times' },
      ] as const}
      value={closed}
      onchoose={(value) => (closed = value)}
    />
    {#if closed === 'open'}
      <div class="min-w-48 flex-1">
        <Input aria-label="Times on those dates" placeholder="9–12, 13–15" bind:value={times} />
        {#if mends.times}<Mend words={mends.times} />{/if}
      </div>
    {/if}
  </div>
  <div class="flex gap-2">
    <ActionButton type="submit">Add the change</ActionButton>
    <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
  </div>
</form>
