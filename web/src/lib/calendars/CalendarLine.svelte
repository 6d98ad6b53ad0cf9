<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must, problemOf, type Problem } from '$lib/api/problem';
  import { counted, dateIn, dayMonth, timeOf } from '$lib/time/format';
  import { replaceFile } from './upload';

  interface Props {
    calendar: Schemas['CalendarView'];
    zone: string;
    mayEdit: boolean;
    onreplaced: () => void;
    onremove: () => void;
  }

  let { calendar, zone, mayEdit, onreplaced, onremove }: Props = $props();

  let problem = $state.raw<Problem | undefined>(undefined);

  async function change(next: Partial<Schemas['CalendarForm']>): Promise<void> {
    const body = { name: calendar.name, isAsked: calendar.isAsked, tentativeCounts: calendar.tentativeCounts, ...next };
    try {
      await must(api.PUT('/api/calendars/{id}', { params: { path: { id: calendar.id } }, body }));
      problem = undefined;
    } catch (thrown) {
      problem = problemOf(thrown);
    }
    onreplaced();
  }

  async function replace(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    if (!file) return;
    try {
      await replaceFile(calendar.id, file);
      problem = undefined;
      onreplaced();
    } catch (thrown) {
      problem = problemOf(thrown);
    }
    input.value = '';
  }
</script>

<li class="border-t border-line px-4 py-3 first:border-t-0">
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
    <span class="font-semibold">{calendar.name}</span>
    <span>{calendar.hostName}</span>
    <span class="text-sm text-muted">
      {calendar.fileName}, loaded {dayMonth(dateIn(calendar.loadedAt, zone))} at {timeOf(calendar.loadedAt, zone)}, {counted(calendar.entries, 'entry', 'entries')}
    </span>
    {#if mayEdit}
      <span class="ml-auto flex gap-4 text-sm">
        <label class="cursor-pointer underline underline-offset-4 focus-within:outline-3">
          Replace its file<input type="file" accept=".ics,text/calendar" class="sr-only" aria-label="Replace the file of {calendar.name}" onchange={(event) => void replace(event.currentTarget)} />
        </label>
        <button type="button" class="underline underline-offset-4" aria-label="Take away {calendar.name}" onclick={onremove}>Take away</button>
      </span>
    {/if}
  </div>
  <div class="mt-1 flex flex-wrap gap-x-6 gap-y-1 text-sm">
    <Checkbox
      checked={calendar.isAsked}
      disabled={!mayEdit}
      aria-label="Busy times of {calendar.name} are in the way of openings"
      onchange={(event: Event & { currentTarget: HTMLInputElement }) => void change({ isAsked: event.currentTarget.checked })}>busy times are in the way of openings</Checkbox
    >
    {#if calendar.isAsked}
      <Checkbox
        checked={calendar.tentativeCounts}
        disabled={!mayEdit}
        aria-label="Tentative ones of {calendar.name} too"
        onchange={(event: Event & { currentTarget: HTMLInputElement }) => void change({ tentativeCounts: event.currentTarget.checked })}>tentative ones too</Checkbox
      >
    {/if}
  </div>
  {#if problem}
    <p class="mt-1 text-sm text-brick" role="alert">{problem.errors?.file?.[0] ?? problem.title} What was there still counts.</p>
  {/if}
  {#if calendar.unread.length > 0}
    <details class="mt-1.5 rounded-lg border-l-4 border-brick bg-brick-tint px-3 py-1.5 text-sm text-brick-text" open>
      <summary class="cursor-pointer font-semibold">{counted(calendar.unread.length, 'event', 'events')} could not be read, so {calendar.unread.length === 1 ? 'it does' : 'they do'} not block any time</summary>
      <ul class="mt-1 space-y-0.5">
        {#each calendar.unread as event (event.line)}
          <li>Line {event.line}, “{event.title}”: {event.fault}</li>
        {/each}
      </ul>
    </details>
  {/if}
</li>
