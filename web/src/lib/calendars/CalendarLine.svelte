<script lang="ts">
  import { Checkbox, Radio } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { faultOf, must } from '$lib/api/problem';
  import { counted } from '$lib/time/format';
  import NewPassword from './NewPassword.svelte';
  import OwnEntries from './OwnEntries.svelte';
  import { replaceFile } from './upload';
  import { outOfReach, sourceOf } from './words';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    calendar: Schemas['CalendarView'];
    hosts: Schemas['HostView'][];
    zone: string;
    now: string;
    mayEdit: boolean;
    onchanged: () => void;
    onremove: () => void;
  }

  let { calendar, hosts, zone, now, mayEdit, onchanged, onremove }: Props = $props();

  const attempt = new Attempt();
  const looking = new Attempt();
  const problem = $derived(attempt.problem ?? looking.problem);
  let opened = $state<'entries' | 'password' | undefined>(undefined);
  const isOutside = $derived(calendar.kind === 'account' || calendar.kind === 'address');
  const mayBeWritten = $derived(calendar.hostId !== null && (calendar.kind === 'builtIn' || calendar.mayWrite));
  const countsFor = $derived(
    calendar.hostId === null ? hosts.filter((host) => calendar.for.includes(host.id)).map((host) => host.name) : [],
  );
  const fault = $derived(outOfReach(calendar, now, zone));

  // One after another: what is set while another setting is on its way is not lost.
  let last = Promise.resolve();

  function act(doing: () => Promise<unknown>): Promise<void> {
    last = last.then(async () => {
      await attempt.run(doing);
      onchanged();
    });
    return last;
  }

  function change(next: Partial<Schemas['CalendarForm']>): Promise<void> {
    const body = {
      name: calendar.name,
      isAsked: calendar.isAsked,
      tentativeCounts: calendar.tentativeCounts,
      hostIds: null,
      ...next,
    };
    return act(() => must(api.PUT('/api/calendars/{id}', { params: { path: { id: calendar.id } }, body })));
  }

  async function look(): Promise<void> {
    // It can take seconds, in which something else may be set.
    await looking.run(() => must(api.POST('/api/calendars/{id}/look', { params: { path: { id: calendar.id } } })));
    onchanged();
  }

  async function replace(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    if (file) await act(() => replaceFile(calendar.id, file));
    input.value = '';
  }

  function writeHere(): Promise<void> {
    const body = { calendarId: calendar.kind === 'builtIn' ? null : calendar.id };
    return act(() =>
      must(api.PUT('/api/hosts/{id}/written-calendar', { params: { path: { id: calendar.hostId ?? '' } }, body })),
    );
  }
</script>

{#snippet listed(events: Schemas['UnreadView'][], one: string, several: string)}
  {#if events.length > 0}
    <details class="mt-1.5 rounded-lg border-l-4 border-brick bg-brick-tint px-3 py-1.5 text-sm text-brick-text" open>
      <summary class="cursor-pointer font-semibold"
        >{counted(events.length, 'event', 'events')} {events.length === 1 ? one : several}</summary
      >
      <ul class="mt-1 space-y-0.5">
        {#each events as event, place (place)}
          <li>Line {event.line}, “{event.title}”: {event.fault}</li>
        {/each}
      </ul>
    </details>
  {/if}
{/snippet}

<li class="border-t border-line px-4 py-3 first:border-t-0">
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
    <span class="font-semibold">{calendar.name}</span>
    <span class="text-sm text-muted">{sourceOf(calendar, now, zone)}</span>
    {#if mayEdit}
      <span class="ml-auto flex flex-wrap gap-4 text-sm">
        {#if isOutside}<TextButton
            disabled={looking.busy}
            aria-label="Look again at {calendar.name}{looking.busy ? ': looking…' : ''}"
            onclick={() => void look()}>{looking.busy ? 'looking…' : 'Look again'}</TextButton
          >{/if}
        {#if calendar.kind === 'account'}<TextButton
            aria-expanded={opened === 'password'}
            aria-label="New password for {calendar.name}"
            onclick={() => (opened = opened === 'password' ? undefined : 'password')}>New password</TextButton
          >{/if}
        {#if calendar.kind === 'file'}
          <label class="cursor-pointer underline underline-offset-4 focus-within:outline-3">
            Replace its file<input
              type="file"
              accept=".ics,text/calendar"
              class="sr-only"
              aria-label="Replace the file of {calendar.name}"
              onchange={(event) => void replace(event.currentTarget)}
            />
          </label>
        {/if}
        {#if calendar.kind === 'builtIn'}
          <TextButton
            aria-expanded={opened === 'entries'}
            aria-label="Entries of {calendar.name}, {calendar.hostName}"
            onclick={() => (opened = opened === 'entries' ? undefined : 'entries')}>Entries</TextButton
          >
        {:else}
          <TextButton aria-label="Remove {calendar.name}" onclick={onremove}>Remove</TextButton>
        {/if}
      </span>
    {/if}
  </div>
  {#if countsFor.length > 0}<p class="text-sm">counts for {countsFor.join(', ')}</p>{/if}
  <div class="mt-1 flex flex-wrap gap-x-6 gap-y-1 text-sm">
    <Checkbox
      checked={calendar.isAsked}
      disabled={!mayEdit}
      aria-label="Busy times of {calendar.name} block openings"
      onchange={(event: Event & { currentTarget: HTMLInputElement }) =>
        void change({ isAsked: event.currentTarget.checked })}>busy times block openings</Checkbox
    >
    {#if calendar.isAsked}
      <Checkbox
        checked={calendar.tentativeCounts}
        disabled={!mayEdit}
        aria-label="Tentative ones of {calendar.name} too"
        onchange={(event: Event & { currentTarget: HTMLInputElement }) =>
          void change({ tentativeCounts: event.currentTarget.checked })}>tentative ones too</Checkbox
      >
    {/if}
    {#if mayBeWritten}
      {@const here =
        calendar.kind === 'builtIn' ? 'new bookings are written nowhere else' : 'new bookings are written here'}
      <Radio
        name="write-{calendar.hostId}"
        value={calendar.id}
        group={calendar.isWrittenTo ? calendar.id : ''}
        disabled={!mayEdit}
        aria-label="{calendar.hostName}, {calendar.name}: {here}"
        onchange={() => void writeHere()}>{here}</Radio
      >
    {/if}
  </div>
  {#if fault}<p class="mt-1.5 rounded-lg border-l-4 border-brick bg-brick-tint px-3 py-1.5 text-sm text-brick-text">
      {fault}
    </p>{/if}
  {#if calendar.unwritten > 0 && calendar.writeFault}
    <p class="mt-1.5 rounded-lg border-l-4 border-brick bg-brick-tint px-3 py-1.5 text-sm text-brick-text">
      {counted(calendar.unwritten, 'booking is', 'bookings are')} not written there yet. {calendar.writeFault} It is tried
      again and again.
    </p>
  {/if}
  {#if problem}
    <p class="mt-1 text-sm text-brick" role="alert">
      {faultOf(problem, 'file')} What was there still counts.
    </p>
  {/if}
  {#if opened === 'password'}<NewPassword
      {calendar}
      onchanged={() => {
        opened = undefined;
        onchanged();
      }}
    />{/if}
  {#if opened === 'entries'}<OwnEntries
      {calendar}
      {now}
      zone={hosts.find((host) => host.id === calendar.hostId)?.zone ?? zone}
      {onchanged}
    />{/if}
  {@render listed(
    calendar.unread.filter((event) => event.isPartly),
    'could be read only in part: what was found of it counts, the rest does not block any time',
    'could be read only in part: what was found of them counts, the rest does not block any time',
  )}
  {@render listed(
    calendar.unread.filter((event) => !event.isPartly),
    'could not be read, so it does not block any time',
    'could not be read, so they do not block any time',
  )}
</li>
