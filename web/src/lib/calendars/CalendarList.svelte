<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { Modal } from 'flowbite-svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must, problemOf, type Problem } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import CalendarLine from './CalendarLine.svelte';
  import JoinForm from './JoinForm.svelte';

  interface Props {
    hosts: Schemas['HostView'][];
    calendars: Schemas['CalendarView'][];
    zone: string;
    /** The reader's own time. */
    own: string | null;
  }

  let { hosts, calendars, zone, own }: Props = $props();

  // A room is mostly booked here alone.
  const unasked = $derived(hosts.filter((host) => calendars.some((calendar) => calendar.hostId === host.id) && !calendars.some((calendar) => calendar.hostId === host.id && calendar.isAsked)));
  const without = $derived(hosts.filter((host) => host.kind === 'person' && !calendars.some((calendar) => calendar.hostId === host.id)));
  // One's own calendars, those of rooms and things, and those of hosts who let one act for them.
  const mine = $derived(hosts.filter((host) => host.mayOffer));
  let joining = $state(false);
  let removing = $state.raw<Schemas['CalendarView'] | undefined>(undefined);
  let problem = $state.raw<Problem | undefined>(undefined);

  async function remove(calendar: Schemas['CalendarView']): Promise<void> {
    try {
      await must(api.DELETE('/api/calendars/{id}', { params: { path: { id: calendar.id } } }));
      problem = undefined;
    } catch (thrown) {
      problem = problemOf(thrown);
    }
    removing = undefined;
    await invalidateAll();
  }
</script>

<section aria-labelledby="joined">
  <header class="mb-4 flex flex-wrap items-center justify-between gap-3">
    <h1 id="joined" class="text-[26px]">Calendars</h1>
    {#if mine.length > 0 && !joining}<ActionButton kind="main" onclick={() => (joining = true)}>Join a calendar file</ActionButton>{/if}
  </header>
  {#if problem}<div class="mb-3"><ProblemNote {problem} /></div>{/if}
  {#if joining}
    <JoinForm
      hosts={mine}
      {own}
      onjoined={() => {
        joining = false;
        void invalidateAll();
      }}
      onclose={() => (joining = false)}
    />
  {/if}
  {#if without.length > 0}
    <p class="mb-2 text-muted">No calendar is joined for {without.map((host) => host.name).join(', ')}: only bookings made here are in the way of theirs.</p>
  {/if}
  {#if unasked.length > 0}
    <p class="mb-2 rounded-lg border-l-4 border-brick bg-brick-tint px-3 py-1.5 text-brick-text">None of the calendars of {unasked.map((host) => host.name).join(', ')} is asked: only bookings made here are in the way of theirs.</p>
  {/if}
  {#if calendars.length === 0}
    <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
      <h2 class="text-xl">No calendar yet</h2>
      <p class="mt-1 text-muted">A calendar keeps its busy times off the pages of its host. Export yours as an iCalendar file (.ics) and join it.</p>
    </div>
  {:else}
    <ul class="overflow-hidden rounded-2xl border border-line bg-card">
      {#each calendars as calendar (calendar.id)}
        <CalendarLine {calendar} {zone} mayEdit={mine.some((host) => host.id === calendar.hostId)} onreplaced={() => void invalidateAll()} onremove={() => (removing = calendar)} />
      {/each}
    </ul>
  {/if}
</section>

{#if removing}
  {@const calendar = removing}
  <Modal open title="Take away “{calendar.name}”?" size="sm" onclose={() => (removing = undefined)}>
    <p>Its events are no longer in the way: {calendar.hostName}’s pages may offer times that the calendar has filled. To have it back, join the file again.</p>
    <div class="mt-4 flex flex-wrap justify-end gap-3">
      <ActionButton onclick={() => (removing = undefined)}>Keep it</ActionButton>
      <ActionButton kind="main" onclick={() => void remove(calendar)}>Take it away</ActionButton>
    </div>
  </Modal>
{/if}
