<script lang="ts">
  import { Select } from 'flowbite-svelte';
  import { tick } from 'svelte';
  import type { Schemas } from '$lib/api/client';
  import { leadAfter } from '$lib/supply/relaxations';
  import type { LinkEditing } from './LinkEditing.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    link: LinkEditing;
    hosts: Schemas['HostView'][];
    mayEdit: boolean;
  }

  let { link, hosts, mayEdit }: Props = $props();

  const MOST_SEATS = 12;
  const seats = $derived(link.form.times.lineUp);
  const { lead } = $derived(link.form.details);

  function nameOf(id: string): string {
    return hosts.find((host) => host.id === id)?.name ?? 'someone who left';
  }

  function set(lineUp: Schemas['SeatForm'][]): void {
    link.form.times.lineUp = lineUp;
    const seated = new Set(lineUp.flatMap((seat) => seat.hostIds));
    link.form.times.overridden = link.form.times.overridden.filter((id) => seated.has(id));
  }

  const keepers = [
    { value: 'counts', name: 'any of them' },
    { value: 'first', name: 'keeper first' },
    { value: 'only', name: 'keeper only' },
  ];

  /** Whoever may be offered and is in no seat yet. */
  const free = $derived(hosts.filter((host) => host.mayOffer && !link.hostIds.includes(host.id)));

  /** What was chosen; once the others to choose from are drawn, the list names what it is for again. */
  function taken(select: HTMLSelectElement): string {
    const { value } = select;
    void tick().then(() => (select.value = ''));
    return value;
  }

  function add(event: Event & { currentTarget: HTMLSelectElement }): void {
    const id = taken(event.currentTarget);
    if (id !== '') set([...seats, { hostIds: [id], fill: 'inOrder' }]);
  }

  function addTo(at: number, event: Event & { currentTarget: HTMLSelectElement }): void {
    const id = taken(event.currentTarget);
    if (id !== '') set(seats.map((seat, i) => (i === at ? { ...seat, hostIds: [...seat.hostIds, id] } : seat)));
  }

  function takeOut(at: number, id: string): void {
    const seat = seats[at];
    if (!seat) return;
    if (seat.hostIds.length > 1)
      set(seats.map((one, i) => (i === at ? { ...one, hostIds: one.hostIds.filter((other) => other !== id) } : one)));
    else {
      set(seats.filter((_, i) => i !== at));
      link.setDetails({ lead: leadAfter(lead, at) });
    }
  }

  function override(id: string, isOn: boolean): void {
    const rest = link.form.times.overridden.filter((one) => one !== id);
    link.form.times.overridden = isOn ? [...rest, id] : rest;
  }
</script>

<section aria-label="Line-up" class="flex flex-wrap items-center gap-x-3 gap-y-1.5">
  with
  <ul class="flex flex-wrap items-center gap-x-3 gap-y-1.5">
    {#each seats as seat, at (at)}
      <li class="flex flex-wrap items-center gap-1.5" aria-label="Seat {at + 1}">
        {#each seat.hostIds as id, place (id)}
          {#if place > 0}<span class="text-sm text-muted">or</span>{/if}
          <span class="inline-flex items-center rounded-full border border-line-strong pl-3 {mayEdit ? '' : 'pr-3'}">
            {nameOf(id)}{#if at === lead && place === 0}<strong class="ml-1.5 text-sm">lead</strong>{/if}
            {#if mayEdit && (seats.length > 1 || seat.hostIds.length > 1)}<button
                type="button"
                class="ml-0.5 h-8 w-8 rounded-full hover:bg-lane"
                aria-label="Remove {nameOf(id)}"
                onclick={() => takeOut(at, id)}>×</button
              >{:else}<span class="h-8 w-3"></span>{/if}
          </span>
        {/each}
        {#if mayEdit && free.length > 0}
          <Select
            aria-label="Or someone else in seat {at + 1}"
            class="w-20"
            classes={{ select: 'rounded-full border-dashed py-1 text-sm text-muted' }}
            placeholder=""
            value=""
            onchange={(event: Event & { currentTarget: HTMLSelectElement }) => addTo(at, event)}
            items={[{ value: '', name: 'or…' }, ...free.map((host) => ({ value: host.id, name: host.name }))]}
          />
        {/if}
        {#if mayEdit && seat.hostIds.length > 1}
          <Select
            aria-label="Keeper in seat {at + 1}"
            class="w-36"
            classes={{ select: 'rounded-full border-dashed py-1 text-sm' }}
            placeholder=""
            bind:value={
              () => seat.keeper ?? 'counts',
              (keeper) => set(seats.map((one, i) => (i === at ? { ...one, keeper } : one)))
            }
            items={keepers}
          />
        {/if}
        {#if mayEdit && at !== lead && seats.length > 1}<TextButton
            class="min-h-8 text-sm text-muted"
            aria-label="Let seat {at + 1} lead"
            onclick={() => link.setDetails({ lead: at })}>lead</TextButton
          >{/if}
      </li>
    {/each}
    {#if mayEdit && seats.length < MOST_SEATS && free.length > 0}
      <li>
        <Select
          aria-label="Another seat"
          class="w-36"
          classes={{ select: 'rounded-full border-dashed py-1.5 text-sm text-muted' }}
          placeholder=""
          value=""
          onchange={add}
          items={[{ value: '', name: '+ seat' }, ...free.map((host) => ({ value: host.id, name: host.name }))]}
        />
      </li>
    {/if}
  </ul>
  {#each link.mendsUnder('times.lineUp') as mend (mend)}<p class="mt-1 text-sm text-brick" role="alert">
      {mend}
    </p>{/each}
  {#if link.hostIds.length > 0}
    <details class="text-sm" open={link.form.times.overridden.length > 0}>
      <summary class="min-h-8 cursor-pointer text-muted">Ignore these calendars</summary>
      {#each link.hostIds as id (id)}
        <Choice class="flex min-h-8"
          ><input
            type="checkbox"
            class="rounded border-edge"
            disabled={!mayEdit}
            checked={link.form.times.overridden.includes(id)}
            onchange={(event) => override(id, event.currentTarget.checked)}
          />
          ignore {nameOf(id)}’s calendars</Choice
        >
      {/each}
      <p class="text-muted">Bookings and holds made here always count.</p>
    </details>
  {/if}
</section>
