<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { leadAfter } from '$lib/supply/relaxations';
  import Segments from '$lib/ui/Segments.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import CalendarChoices from './CalendarChoices.svelte';
  import KeepersByAnswer from './KeepersByAnswer.svelte';
  import type { EditorState } from './EditorState.svelte';
  import { usualDetails } from './form';
  import Section from './Section.svelte';
  import Sentence from './Sentence.svelte';
  import { moved } from '$lib/lists';
  import Choice from '$lib/ui/Choice.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    editor: EditorState;
    hosts: Schemas['HostView'][];
    calendars: Schemas['CalendarView'][];
  }

  let { editor, hosts, calendars }: Props = $props();

  const MOST_SEATS = 12;
  const seats = $derived(editor.form.times.lineUp);
  const details = $derived(editor.form.details ?? usualDetails());
  const lineUp = $derived(hosts.filter((host) => seats.some((seat) => seat.hostIds.includes(host.id))));
  // What everybody has here tells of nothing outside.
  const withoutCalendar = $derived(
    lineUp.filter(
      (host) =>
        !calendars.some(
          (calendar) => calendar.isAsked && calendar.kind !== 'builtIn' && calendar.for.includes(host.id),
        ),
    ),
  );

  const keepers = [
    { value: 'counts', name: 'keepers don’t matter' },
    { value: 'first', name: 'the guest’s keeper first' },
    { value: 'only', name: 'only the guest’s keeper' },
  ];
  const considersKeepers = $derived(seats.some((seat) => (seat.keeper ?? 'counts') !== 'counts'));

  const fills = [
    { value: 'balanced', text: 'evenly' },
    { value: 'inOrder', text: 'in this order' },
  ] as const;

  function nameOf(id: string): string {
    return hosts.find((host) => host.id === id)?.name ?? 'someone who left';
  }

  /** Who may still be put into a seat: whoever may be offered and is not there yet. */
  function others(seat: Schemas['SeatForm']): { value: string; name: string }[] {
    return hosts
      .filter((host) => host.mayOffer && !seat.hostIds.includes(host.id))
      .map((host) => ({ value: host.id, name: host.name }));
  }

  function setSeat(at: number, change: Partial<Schemas['SeatForm']>): void {
    editor.form.times.lineUp = seats.map((seat, i) => (i === at ? { ...seat, ...change } : seat));
  }

  function add(at: number, event: Event & { currentTarget: HTMLSelectElement }): void {
    const id = event.currentTarget.value;
    event.currentTarget.value = '';
    const seat = seats[at];
    if (id !== '' && seat) setSeat(at, { hostIds: [...seat.hostIds, id] });
  }

  function addSeat(): void {
    const free =
      hosts.find((host) => host.mayOffer && !seats.some((seat) => seat.hostIds.includes(host.id))) ??
      hosts.find((host) => host.mayOffer);
    if (free) editor.form.times.lineUp = [...seats, { hostIds: [free.id], fill: 'balanced' }];
  }

  function takeOut(at: number): void {
    editor.form.times.lineUp = seats.filter((_, i) => i !== at);
    setDetails({ lead: leadAfter(details.lead, at) });
  }

  function setDetails(change: Partial<typeof details>): void {
    editor.form.details = { ...details, ...change };
  }

  function setAlong(at: number, change: Partial<Schemas['InvitedAlong']>): void {
    setDetails({ alsoInvited: details.alsoInvited.map((one, i) => (i === at ? { ...one, ...change } : one)) });
  }

  /** "Now: Keziah (3), then Sunniva (4)". */
  function turnOf(at: number): string {
    return (editor.supply?.turns[at] ?? []).map((turn) => `${turn.host} (${String(turn.sessions)})`).join(', then ');
  }
</script>

<Section title="Line-up">
  {#each seats as seat, at (at)}
    <div
      role="group"
      aria-label="Seat {at + 1}"
      class="rounded-xl border border-line p-3 {editor.base &&
      JSON.stringify(editor.base.times.lineUp[at]) !== JSON.stringify(seat)
        ? 'border-l-4 border-l-ink'
        : ''}"
    >
      <Sentence mends={editor.mendsUnder(`times.lineUp[${at}]`)}>
        <strong class="text-ink">Seat {at + 1}</strong>
        {seat.hostIds.length > 1 ? 'any one of' : ''}
        <ul class="flex flex-wrap gap-2" aria-label="Who may take seat {at + 1}">
          {#each seat.hostIds as id, place (id)}
            <li class="inline-flex items-center rounded-lg border border-line-strong bg-card pl-3 text-ink">
              {nameOf(id)}
              {#if seat.fill === 'inOrder' && place > 0}
                <button
                  type="button"
                  aria-label="Move {nameOf(id)} forward in seat {at + 1}"
                  class="ml-1 h-9 w-8 hover:bg-lane"
                  onclick={() => setSeat(at, { hostIds: moved(seat.hostIds, place, -1) })}>←</button
                >
              {/if}
              {#if seat.hostIds.length > 1}
                <button
                  type="button"
                  aria-label="Remove {nameOf(id)} from seat {at + 1}"
                  class="ml-1 h-9 w-8 rounded-r-lg hover:bg-lane"
                  onclick={() => setSeat(at, { hostIds: seat.hostIds.filter((other) => other !== id) })}>×</button
                >
              {:else}
                <span class="h-9 w-3"></span>
              {/if}
            </li>
          {/each}
        </ul>
        {#if others(seat).length > 0}
          <span class="w-40"
            ><Select
              aria-label="Add a host to seat {at + 1}"
              classes={{ select: 'py-1.5' }}
              placeholder=""
              value=""
              onchange={(event: Event & { currentTarget: HTMLSelectElement }) => add(at, event)}
              items={[{ value: '', name: '+ host' }, ...others(seat)]}
            /></span
          >
        {/if}
      </Sentence>
      {#if seat.hostIds.length > 1}
        <div class="mt-2 flex flex-wrap items-center gap-x-2.5 gap-y-1 text-muted">
          given out <Segments
            label="How seat {at + 1} is assigned"
            options={fills}
            value={seat.fill}
            onchoose={(fill) => setSeat(at, { fill })}
          />
          {#if editor.form.times.places === 1}<span class="w-56"
              ><Select
                aria-label="Keepers in seat {at + 1}"
                classes={{ select: 'py-1.5' }}
                placeholder=""
                bind:value={() => seat.keeper ?? 'counts', (keeper) => setSeat(at, { keeper })}
                items={keepers}
              /></span
            >{/if}
        </div>
        {#if (seat.keeper ?? 'counts') !== 'counts'}<p class="mt-1.5 text-sm text-muted">
            By a link or a personal address, {seat.keeper === 'only'
              ? 'a guest can book their keeper only'
              : 'a guest gets their keeper where free'}. Everybody else is assigned as follows, and who has no keeper
            yet keeps whom they get.
          </p>{/if}
        <p class="mt-1.5 text-sm text-muted">
          {#if seat.fill === 'balanced'}
            It goes to whoever had the fewest within 30 days, by weight.{#if turnOf(at)}{' '}Now: {turnOf(at)}.{/if}
          {:else}
            It always goes to the first of these who is free.
          {/if}
        </p>
      {/if}
      {#if seats.length > 1}
        <div class="mt-1 flex flex-wrap items-center gap-x-4">
          <Choice class="inline-flex min-h-9"
            ><input
              type="radio"
              name="lead"
              value={at}
              class="border-edge"
              checked={details.lead === at}
              onchange={() => setDetails({ lead: at })}
            /> leads: the invitation comes from them</Choice
          >
          <TextButton class="min-h-9" aria-label="Remove seat {at + 1}" onclick={() => takeOut(at)}>Remove</TextButton>
        </div>
      {/if}
    </div>
  {/each}
  <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
    {#if seats.length < MOST_SEATS}<ActionButton class="py-1.5" onclick={addSeat}>Another seat</ActionButton>{/if}
    <Choice class="inline-flex min-h-9"
      ><input type="checkbox" class="rounded border-edge" bind:checked={editor.form.keepsHosts} /> a guest who returns gets
      the same hosts where they are free</Choice
    >
  </div>
  <KeepersByAnswer {editor} {hosts} isShown={considersKeepers} />
  {#each editor
    .mendsUnder('times.lineUp')
    .filter((mend) => !seats.some((_, at) => editor.mendsUnder(`times.lineUp[${at}]`).includes(mend))) as mend (mend)}<p
      class="text-sm text-brick"
      role="alert"
    >
      {mend}
    </p>{/each}

  {#each details.alsoInvited as along, at (at)}
    <Sentence mends={editor.mendsUnder(`details.alsoInvited[${at}]`)}>
      also invited
      <span class="w-44"
        ><Input
          aria-label="Name of who is also invited, {at + 1}"
          placeholder="name"
          class="py-1.5"
          bind:value={() => along.name, (name) => setAlong(at, { name: name ?? '' })}
        /></span
      >
      <span class="w-60"
        ><Input
          aria-label="Email of who is also invited, {at + 1}"
          type="email"
          placeholder="email"
          class="py-1.5"
          bind:value={() => along.email, (email) => setAlong(at, { email: email ?? '' })}
        /></span
      >
      <TextButton
        class="min-h-9 px-1.5"
        aria-label="Don’t invite {along.name || along.email || 'them'} any more"
        onclick={() => setDetails({ alsoInvited: details.alsoInvited.filter((_, i) => i !== at) })}>×</TextButton
      >
    </Sentence>
  {/each}
  {#if details.alsoInvited.length > 0}<p class="text-sm text-muted">
      They get every invitation; their calendars aren’t checked.
    </p>{/if}
  {#if details.alsoInvited.length < 20}<ActionButton
      kind="quiet"
      class="py-1"
      onclick={() => setDetails({ alsoInvited: [...details.alsoInvited, { name: '', email: '' }] })}
      >Also invite someone</ActionButton
    >{/if}

  <CalendarChoices
    {lineUp}
    {calendars}
    bind:choices={() => editor.form.times.calendars ?? [], (next) => (editor.form.times.calendars = next)}
    mends={editor.mendsUnder('times.calendars')}
  />
  {#if withoutCalendar.length > 0}
    <p class="text-sm text-muted">
      No calendar is asked for {withoutCalendar.map((each) => each.name).join(', ')}, so only bookings made here block
      their time. <a class="underline underline-offset-4" href="/work/calendars">See calendars</a>
    </p>
  {/if}
</Section>
