<script lang="ts">
  import { Input, Select, Textarea } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { placeKinds } from '$lib/guest/place';
  import CalendarChoices from '$lib/pages/CalendarChoices.svelte';
  import NumberField from '$lib/pages/NumberField.svelte';
  import Sentence from '$lib/pages/Sentence.svelte';
  import type { LinkEditing } from './LinkEditing.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    link: LinkEditing;
    hosts: Schemas['HostView'][];
    desks: Schemas['DeskView'][];
    calendars: Schemas['CalendarView'][];
    mayEdit: boolean;
    /** Saves the offer as a pattern under a name. */
    onpattern: (name: string) => Promise<boolean>;
  }

  let { link, hosts, desks, calendars, mayEdit, onpattern }: Props = $props();

  const { details } = $derived(link.form);
  const lineUp = $derived(hosts.filter((host) => link.hostIds.includes(host.id)));
  let pattern = $state('');
  let patternSaid = $state('');

  function along(at: number, change: Partial<Schemas['InvitedAlong']>): void {
    link.setDetails({ alsoInvited: details.alsoInvited.map((one, i) => (i === at ? { ...one, ...change } : one)) });
  }

  async function savePattern(): Promise<void> {
    if (await onpattern(pattern)) [patternSaid, pattern] = [`Saved as “${pattern.trim()}”.`, ''];
  }
</script>

<section aria-labelledby="link-details" class="rounded-2xl border border-line bg-card p-4">
  <h2 id="link-details" class="text-part">More options</h2>
  <fieldset disabled={!mayEdit} class="mt-2 grid gap-x-6 gap-y-3 lg:grid-cols-2">
    <div class="space-y-3">
      <Sentence mends={[link.mend('placeKind'), link.mend('place')]}>
        takes place
        <span class="w-36"
          ><Select
            aria-label="Kind of place"
            placeholder=""
            classes={{ select: 'py-1.5' }}
            bind:value={link.form.placeKind}
            items={placeKinds.map((kind) => ({ value: kind.value, name: kind.text }))}
          /></span
        >
        <span class="w-56"
          ><Input
            id="place"
            aria-label="Place"
            placeholder={link.form.placeKind === 'video' ? 'a room is made' : 'where'}
            class="py-1.5"
            bind:value={link.form.place}
          /></span
        >
      </Sentence>
      <Sentence mends={[link.mend('deskId')]}>
        styled as <span class="w-52"
          ><Select
            aria-label="Desk"
            placeholder=""
            classes={{ select: 'py-1.5' }}
            bind:value={link.form.deskId}
            items={desks.map((desk) => ({ value: desk.id, name: desk.name }))}
          /></span
        >
      </Sentence>
      <Sentence mends={[link.mend('details.takes'), link.mend('details.endsOn')]}>
        {#if !details.together && link.form.guests.length > 1}
          takes {link.form.guests.length} bookings, one for each guest, ends on
        {:else}
          takes <NumberField
            id="link-takes"
            label="How many bookings it takes"
            min={1}
            max={50}
            bind:value={() => details.takes, (takes) => link.setDetails({ takes: Number(takes) || 1 })}
          />
          {details.takes === 1 ? 'booking' : 'bookings'}, ends on
        {/if}
        <span class="w-40"
          ><Input
            type="date"
            aria-label="Link ends on"
            class="py-1.5"
            bind:value={() => details.endsOn, (endsOn) => endsOn && link.setDetails({ endsOn })}
          /></span
        >
      </Sentence>
      <Choice class="flex min-h-9"
        ><input
          type="checkbox"
          class="rounded border-edge"
          bind:checked={() => details.reopens, (reopens) => link.setDetails({ reopens })}
        /> after a cancellation, another booking can be made</Choice
      >
      <Choice class="flex min-h-9"
        ><input
          type="checkbox"
          class="rounded border-edge"
          bind:checked={() => details.leavesFree, (leavesFree) => link.setDetails({ leavesFree })}
        /> shows as free time in the hosts’ calendars</Choice
      >
      <Sentence mends={[link.mend('details.topic')]}>
        address begins with <span class="w-60"
          ><Input
            aria-label="Words of the address"
            placeholder="words of the title"
            class="py-1.5"
            bind:value={() => details.topic, (topic) => link.setDetails({ topic: topic ?? '' })}
          /></span
        >
      </Sentence>
      {#each details.alsoInvited as one, at (at)}
        <Sentence mends={link.mendsUnder(`details.alsoInvited[${at}]`)}>
          also invited
          <span class="w-40"
            ><Input
              aria-label="Name of who is also invited, {at + 1}"
              placeholder="name"
              class="py-1.5"
              bind:value={() => one.name, (name) => along(at, { name: name ?? '' })}
            /></span
          >
          <span class="w-56"
            ><Input
              aria-label="Email of who is also invited, {at + 1}"
              type="email"
              placeholder="email"
              class="py-1.5"
              bind:value={() => one.email, (email) => along(at, { email: email ?? '' })}
            /></span
          >
          <button
            type="button"
            class="min-h-9 px-1.5"
            aria-label="Don’t invite {one.name || one.email || 'them'} any more"
            onclick={() => link.setDetails({ alsoInvited: details.alsoInvited.filter((_, i) => i !== at) })}>×</button
          >
        </Sentence>
      {/each}
      {#if details.alsoInvited.length < 20}<TextButton
          class="min-h-9"
          onclick={() => link.setDetails({ alsoInvited: [...details.alsoInvited, { name: '', email: '' }] })}
          >Also invite someone</TextButton
        >{/if}
      <CalendarChoices
        {lineUp}
        {calendars}
        bind:choices={() => link.form.times.calendars ?? [], (next) => (link.form.times.calendars = next)}
        mends={link.mendsUnder('times.calendars')}
      />
    </div>
    <div class="space-y-3">
      <div>
        <label class="mb-1 block" for="link-description">Message to the guest</label>
        <Textarea id="link-description" rows={3} class="w-full" bind:value={link.form.description} />
        {#if link.mend('description')}<p class="text-sm text-brick" role="alert">{link.mend('description')}</p>{/if}
      </div>
      <div>
        <label class="mb-1 block" for="link-host-words">Note for hosts only</label>
        <Textarea
          id="link-host-words"
          rows={2}
          class="w-full"
          bind:value={() => details.hostWords, (hostWords) => link.setDetails({ hostWords: hostWords ?? '' })}
        />
      </div>
      <div>
        <label class="mb-1 block" for="link-notes">Internal notes</label>
        <Textarea
          id="link-notes"
          rows={2}
          class="w-full"
          bind:value={() => details.notes, (notes) => link.setDetails({ notes: notes ?? '' })}
        />
      </div>
      {#if details.questions.length > 0}
        <p class="text-muted">
          The guest is asked {details.questions.length === 1
            ? 'the question'
            : `the ${details.questions.length} questions`} of the page it was started from.
          <TextButton class="min-h-9" onclick={() => link.setDetails({ questions: [] })}>No questions</TextButton>
        </p>
      {/if}
      <div class="flex flex-wrap items-end gap-2">
        <div class="w-60">
          <label class="mb-1 block" for="link-pattern">Save this offer as a pattern</label><Input
            id="link-pattern"
            placeholder="its name"
            class="py-1.5"
            bind:value={pattern}
          />
        </div>
        <button
          type="button"
          class="min-h-9 rounded-lg border border-line-strong px-3 disabled:opacity-50"
          disabled={pattern.trim() === ''}
          onclick={() => void savePattern()}>Save pattern</button
        >
        <span class="text-sm" role="status">{patternSaid}</span>
      </div>
    </div>
  </fieldset>
</section>
