<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import CalendarLine from './CalendarLine.svelte';
  import JoinCalendar from './JoinCalendar.svelte';

  interface Props {
    hosts: Schemas['HostView'][];
    calendars: Schemas['CalendarView'][];
    zone: string;
    now: string;
    /** The reader's own time. */
    own: string | null;
    /** Whether the reader may join calendars that count for several hosts. */
    mayShare: boolean;
  }

  let { hosts, calendars, zone, now, own, mayShare }: Props = $props();

  // What everybody has here is no calendar that anybody joined.
  const joined = $derived(calendars.filter((calendar) => calendar.kind !== 'builtIn' && calendar.hostId !== null));
  // A room is mostly booked here alone.
  const unasked = $derived(
    hosts.filter(
      (host) =>
        joined.some((calendar) => calendar.hostId === host.id) &&
        !joined.some((calendar) => calendar.hostId === host.id && calendar.isAsked),
    ),
  );
  const without = $derived(
    hosts.filter((host) => host.kind === 'person' && !joined.some((calendar) => calendar.hostId === host.id)),
  );
  // One's own first, then everybody else, then what counts for several.
  const groups = $derived(
    [
      ...[...hosts]
        .sort(
          (a, b) =>
            Number(b.id === own) - Number(a.id === own) || Number(b.kind === 'person') - Number(a.kind === 'person'),
        )
        .map((host) => ({
          id: host.id,
          name: host.name,
          calendars: calendars.filter((calendar) => calendar.hostId === host.id),
        })),
      { id: 'team', name: 'For several hosts', calendars: calendars.filter((calendar) => calendar.hostId === null) },
    ].filter((group) => group.calendars.length > 0),
  );
  // One's own calendars, those of rooms and things, and those of hosts who let one act for them.
  const mine = $derived(hosts.filter((host) => host.mayOffer));
  let joining = $state(false);
  let removing = $state.raw<Schemas['CalendarView'] | undefined>(undefined);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  async function remove(calendar: Schemas['CalendarView']): Promise<void> {
    await attempt.run(async () => {
      await must(api.DELETE('/api/calendars/{id}', { params: { path: { id: calendar.id } } }));
    });
    removing = undefined;
    await askAnew();
  }
</script>

<section aria-labelledby="joined">
  <header class="mb-4 flex flex-wrap items-center justify-between gap-3">
    <h1 id="joined" class="text-page">Calendars</h1>
    {#if mine.length > 0 && !joining}<ActionButton kind="main" onclick={() => (joining = true)}
        >Join a calendar</ActionButton
      >{/if}
  </header>
  {#if problem}<div class="mb-3"><ProblemNote {problem} /></div>{/if}
  {#if joining}
    <JoinCalendar
      hosts={mine}
      {own}
      {mayShare}
      onjoined={() => {
        joining = false;
        void askAnew();
      }}
      onclose={() => (joining = false)}
    />
  {/if}
  {#if without.length > 0}
    <p class="mb-2 text-muted">
      No calendar is joined for {without.map((host) => host.name).join(', ')}: only bookings made here block their time.
    </p>
  {/if}
  {#if unasked.length > 0}
    <p class="mb-2 rounded-lg border-l-4 border-brick bg-brick-tint px-3 py-1.5 text-brick-text">
      None of the calendars of {unasked.map((host) => host.name).join(', ')} is used: only bookings made here block their
      time.
    </p>
  {/if}
  {#each groups as group (group.id)}
    <section aria-labelledby="calendars-of-{group.id}" class="mb-4">
      <h2 id="calendars-of-{group.id}" class="mb-1 text-lg">{group.name}</h2>
      <ul class="overflow-hidden rounded-2xl border border-line bg-card">
        {#each group.calendars as calendar (calendar.id)}
          <CalendarLine
            {calendar}
            {hosts}
            {zone}
            {now}
            mayEdit={calendar.for.every((id) => mine.some((host) => host.id === id))}
            onchanged={() => void askAnew()}
            onremove={() => (removing = calendar)}
          />
        {/each}
      </ul>
    </section>
  {/each}
</section>

{#if removing}
  {@const calendar = removing}
  <Dialog title="Remove “{calendar.name}”?" onclose={() => (removing = undefined)}>
    <p>
      Its events no longer block time: pages may offer times when it’s busy. You can join it again later.{calendar.kind ===
        'account' && calendar.isWrittenTo
        ? ' Bookings that were written to it stay there as they are, and new ones are written nowhere else.'
        : ''}
    </p>
    <div class="mt-4 flex flex-wrap justify-end gap-3">
      <ActionButton onclick={() => (removing = undefined)}>Cancel</ActionButton>
      <ActionButton kind="main" onclick={() => void remove(calendar)}>Remove</ActionButton>
    </div>
  </Dialog>
{/if}
