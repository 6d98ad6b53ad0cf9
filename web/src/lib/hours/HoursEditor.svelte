<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import ActingForNote from '$lib/acting/ActingForNote.svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import type { Schemas } from '$lib/api/client';
  import { faultOf } from '$lib/api/problem';
  import LeaveGuard from '$lib/pages/LeaveGuard.svelte';
  import Section from '$lib/pages/Section.svelte';
  import { dateIn } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';
  import Changes from './Changes.svelte';
  import EffectsPanel from './EffectsPanel.svelte';
  import { readAvailability } from './files';
  import type { HoursState } from './HoursState.svelte';
  import WeekHours from './WeekHours.svelte';
  import ZoneWarning from './ZoneWarning.svelte';

  interface Props {
    editor: HoursState;
    hosts: Schemas['HostView'][];
    me: Schemas['Me'];
    onsaved: (hours: Schemas['HoursView']) => void;
    onremove?: () => void;
  }

  let { editor, hosts, me, onsaved, onremove }: Props = $props();

  const hours = $derived(editor.form.document);
  const users = $derived(hosts.filter((host) => editor.saved?.hosts.some((user) => user.id === host.id)));
  const mayEdit = $derived(
    users.length === 0 ? me.isCoordinator || editor.saved === undefined : users.every((host) => host.mayOffer),
  );
  const reading = new Attempt();
  let fileTold = $state<{ mend: boolean; text: string } | undefined>(undefined);

  // Any change shows right away what it would do; a moment's pause keeps half-made ones from asking.
  $effect(() => {
    JSON.stringify(hours);
    const pause = setTimeout(() => void editor.reckon(), 150);
    return () => clearTimeout(pause);
  });

  async function save(): Promise<void> {
    const saved = await editor.save();
    if (saved) onsaved(saved);
    else document.querySelector('[role="alert"]')?.scrollIntoView({ block: 'center' });
  }

  async function load(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    if (!file) return;
    await reading.run(async () => (editor.form.document = await readAvailability(hours.zone, file)));
    fileTold = reading.problem
      ? { mend: true, text: `${faultOf(reading.problem, 'file')} Nothing was changed.` }
      : { mend: false, text: 'These are the hours of the file. They apply once you save.' };
    input.value = '';
  }
</script>

<header
  class="sticky top-0 z-20 -mx-4 mb-1 flex flex-wrap items-center justify-between gap-3 bg-paper px-4 pt-3.5 pb-2 md:-mx-[26px] md:-mt-3.5 md:px-[26px]"
>
  <h1 class="text-page leading-tight">{editor.form.name.trim() || 'New hours'}</h1>
  {#if mayEdit}
    <div class="flex flex-wrap gap-3">
      {#if onremove && users.length === 0 && me.isCoordinator}<ActionButton kind="quiet" onclick={onremove}
          >Delete these hours</ActionButton
        >{/if}
      <ActionButton
        kind="main"
        disabled={editor.busy || editor.unreadDays.length > 0 || (editor.saved !== undefined && !editor.isTouched)}
        onclick={() => void save()}>Save hours</ActionButton
      >
    </div>
  {/if}
</header>

<ActingForNote hosts={users} own={me.hostId} />
{#if editor.problem}<div class="mb-3"><ProblemNote problem={editor.problem} /></div>{/if}

<div class="grid items-start gap-[22px] lg:grid-cols-[minmax(0,1fr)_minmax(300px,340px)]">
  <fieldset disabled={!mayEdit} class="min-w-0 rounded-2xl border border-line bg-card px-5">
    <legend class="sr-only">These hours</legend>
    <Section title="Hours">
      <div class="grid gap-4 md:grid-cols-2">
        <Field label="Internal name" id="hours-name" mend={editor.mend('name')}
          ><Input id="hours-name" bind:value={editor.form.name} /></Field
        >
        <Field label="In the time of" id="hours-zone" mend={editor.mend('document.zone')}
          ><ZoneSelect id="hours-zone" bind:value={editor.form.document.zone} /></Field
        >
      </div>
      <ZoneWarning zone={hours.zone} {users} now={me.now} />
    </Section>
    <Section title="Week">
      <WeekHours
        bind:week={editor.form.document.week}
        bind:unread={editor.unreadDays}
        mendsOf={(day) =>
          editor.mendsUnder(`document.week.${day}`).concat(editor.mendsUnder(`form.document.week.${day}`))}
      />
    </Section>
    <Section title="Dates">
      <Changes
        bind:changes={editor.form.document.changes}
        zone={hours.zone}
        today={dateIn(me.now, hours.zone)}
        mends={editor.mendsUnder('document.changes').concat(editor.mendsUnder('form.document.changes'))}
      />
    </Section>
    <Section title="Files">
      <p class="flex flex-wrap gap-x-5 gap-y-1 text-sm">
        {#if editor.saved}<a
            class="underline underline-offset-4"
            href="/api/hours/{editor.saved.id}/availability"
            download="hours.ics">Save as iCalendar availability</a
          >{/if}
        <label class="cursor-pointer underline underline-offset-4 focus-within:outline-3">
          Load an availability file<input
            type="file"
            accept=".ics,text/calendar"
            class="sr-only"
            aria-label="Availability file"
            onchange={(event) => void load(event.currentTarget)}
          />
        </label>
      </p>
      {#if fileTold}<p
          class="text-sm {fileTold.mend ? 'text-brick' : 'text-muted'}"
          role={fileTold.mend ? 'alert' : 'status'}
        >
          {fileTold.text}
        </p>{/if}
    </Section>
  </fieldset>
  <EffectsPanel {editor} />
</div>

<LeaveGuard isTouched={editor.isTouched} />
