<script lang="ts">
  import Mend from '$lib/ui/Mend.svelte';
  import { Checkbox, Select } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { calendarsOf, choiceInWords, choose, usuallyAsked } from './calendars';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    lineUp: Schemas['HostView'][];
    calendars: Schemas['CalendarView'][];
    choices: Schemas['CalendarChoice'][];
    mends: string[];
  }

  let { lineUp, calendars, choices = $bindable(), mends }: Props = $props();

  let opened = $state<string | undefined>(undefined);

  function change(host: string, asked: readonly string[], writtenTo: string | null): void {
    choices = choose(choices, host, calendarsOf(host, calendars), asked, writtenTo);
  }
</script>

<ul class="space-y-1 text-sm">
  {#each lineUp as host (host.id)}
    {@const own = calendarsOf(host.id, calendars)}
    {@const choice = choices.find((each) => each.hostId === host.id)}
    {@const asked = choice?.asked ?? usuallyAsked(own)}
    {@const writable = own.filter(
      (calendar) => calendar.hostId === host.id && (calendar.kind === 'builtIn' || calendar.mayWrite),
    )}
    {@const writtenTo = choice?.writtenTo ?? own.find((calendar) => calendar.isWrittenTo)?.id ?? ''}
    <li class={choice ? 'border-l-4 border-ink pl-2' : ''}>
      <span class={choice ? 'text-ink' : 'text-muted'}>For {host.name} it {choiceInWords(choice, own)}.</span>
      {#if own.length > 1}
        <TextButton
          class="ml-1"
          aria-expanded={opened === host.id}
          aria-label="Choose other calendars of {host.name}"
          onclick={() => (opened = opened === host.id ? undefined : host.id)}>choose</TextButton
        >
      {/if}
      {#if opened === host.id}
        <div
          class="my-1 flex flex-wrap items-center gap-x-5 gap-y-1 rounded-lg bg-lane px-3 py-2"
          role="group"
          aria-label="Calendars of {host.name} for this page"
        >
          {#each own as calendar (calendar.id)}
            <Checkbox
              checked={asked.includes(calendar.id)}
              aria-label="Ask {calendar.name} of {host.name}"
              onchange={(event: Event & { currentTarget: HTMLInputElement }) =>
                change(
                  host.id,
                  event.currentTarget.checked ? [...asked, calendar.id] : asked.filter((id) => id !== calendar.id),
                  choice?.writtenTo ?? (writtenTo || null),
                )}
              ><span class="sr-only">Ask </span>{calendar.name}<span class="sr-only"> of {host.name}</span></Checkbox
            >
          {/each}
          <span class="flex items-center gap-2">
            bookings go to
            <Select
              aria-label="Where bookings of {host.name} are written"
              class="w-48 py-1"
              placeholder=""
              value={writtenTo}
              onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
                change(host.id, asked, event.currentTarget.value)}
              items={writable.map((calendar) => ({
                value: calendar.id,
                name: calendar.kind === 'builtIn' ? 'no other calendar' : calendar.name,
              }))}
            />
          </span>
        </div>
      {/if}
    </li>
  {/each}
</ul>
{#each mends as mend (mend)}<Mend words={mend} class="" />{/each}
