<script lang="ts">
  import { Select, Toast } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import ActingForNote from '$lib/acting/ActingForNote.svelte';
  import RecordList from '$lib/record/RecordList.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import StateBadge from '$lib/ui/StateBadge.svelte';
  import AppointmentSection from './AppointmentSection.svelte';
  import ChangesSection from './ChangesSection.svelte';
  import CalendarChoices from './CalendarChoices.svelte';
  import type { EditorState } from './EditorState.svelte';
  import { lineUpInWords } from './form';
  import LeaveGuard from './LeaveGuard.svelte';
  import NumberField from './NumberField.svelte';
  import PostSection from './PostSection.svelte';
  import QuestionsSection from './QuestionsSection.svelte';
  import Section from './Section.svelte';
  import Sentence from './Sentence.svelte';
  import SupplyPanel from './SupplyPanel.svelte';
  import TimesSection from './TimesSection.svelte';

  interface Props {
    editor: EditorState;
    hosts: Schemas['HostView'][];
    desks: Schemas['DeskView'][];
    calendars: Schemas['CalendarView'][];
    me: Schemas['Me'];
    /** What words of its own can have filled in. */
    tokens: Schemas['TokenView'][];
    /** What was done to the page, the latest first. */
    record?: Schemas['RecordLine'][];
    onsaved?: (page: Schemas['PageView']) => void;
  }

  let { editor, hosts, desks, calendars, me, tokens, record = [], onsaved }: Props = $props();

  const times = $derived(editor.form.times);
  const saved = $derived(editor.saved);
  const isPublished = $derived(saved?.state === 'published');
  const hostIds = $derived(times.lineUp.flatMap((seat) => seat.hostIds));
  // A line-up of several hosts stands as it is; a page for one host can be given another.
  const soleSeat = $derived(hostIds.length === 1 ? times.lineUp[0] : undefined);
  const lineUp = $derived(hosts.filter((candidate) => hostIds.includes(candidate.id)));
  // What everybody has here tells of nothing outside.
  const withoutCalendar = $derived(lineUp.filter((candidate) => !calendars.some((calendar) => calendar.isAsked && calendar.kind !== 'builtIn' && calendar.for.includes(candidate.id))));
  // Whoever coordinates may change what is theirs, or of hosts who let them.
  const mayEdit = $derived(me.isCoordinator && lineUp.every((host) => host.mayOffer));
  const nameOf = (id: string): string => hosts.find((candidate) => candidate.id === id)?.name ?? 'somebody who left';
  let told = $state<string | undefined>(undefined);

  // Any change of a rule shows right away what it does; a moment's pause keeps half-typed numbers from asking.
  $effect(() => {
    JSON.stringify(times);
    void editor.duration;
    const pause = setTimeout(() => void editor.reckon(), 120);
    return () => clearTimeout(pause);
  });

  async function act(doing: () => Promise<Schemas['PageView'] | undefined>, done: string): Promise<void> {
    told = undefined;
    const view = await doing();
    if (!view) {
      document.querySelector('[role="alert"]')?.scrollIntoView({ block: 'center' });
      return;
    }
    told = done;
    onsaved?.(view);
  }
</script>

<header class="sticky top-0 z-20 -mx-4 mb-1 flex flex-wrap items-center justify-between gap-3 bg-paper px-4 pt-3.5 pb-2 md:-mx-[26px] md:-mt-3.5 md:px-[26px]">
  <div class="flex min-w-0 flex-wrap items-center gap-x-3 gap-y-1">
    <h1 class="text-[26px] leading-tight">{editor.form.title.trim() || 'New page'}</h1>
    {#if saved}
      <StateBadge state={saved.state} />
      {#if isPublished}
        <a class="text-sm text-muted underline underline-offset-4" href={saved.path} target="_blank" rel="noopener">{saved.path.slice(1).replace('/', ' / ')}</a>
      {:else}
        <span class="text-sm text-muted">{saved.path.slice(1).replace('/', ' / ')}</span>
      {/if}
      {#if mayEdit}
        <a class="text-sm text-muted underline underline-offset-4" href="/api/pages/{saved.id}/case?duration={editor.duration === 0 ? saved.form.times.durations[0] : editor.duration}" download>Case file</a>
      {/if}
    {/if}
  </div>
  {#if mayEdit}
    <div class="flex flex-wrap gap-3">
      {#if isPublished}
        <ActionButton disabled={editor.busy} onclick={() => void act(() => editor.unpublish(), 'Guests can’t open the page now. It is a draft again.')}>Unpublish</ActionButton>
        <ActionButton kind="main" disabled={editor.busy || !editor.isChanged} onclick={() => void act(() => editor.save(), 'Saved. Guests see it as it is now.')}>Save changes</ActionButton>
      {:else}
        <ActionButton disabled={editor.busy || !editor.isChanged} onclick={() => void act(() => editor.save(), 'Kept as a draft.')}>Keep as draft</ActionButton>
        <ActionButton kind="main" disabled={editor.busy} onclick={() => void act(() => editor.publish(), 'Published. Guests can book it now.')}>Publish</ActionButton>
      {/if}
    </div>
  {/if}
</header>

<ActingForNote hosts={lineUp} own={me.hostId} />
{#if editor.problem}
  <div class="mb-3"><ProblemNote problem={editor.problem} /></div>
{/if}

<div class="grid items-start gap-[22px] lg:grid-cols-[minmax(0,1fr)_minmax(360px,440px)]">
  <fieldset disabled={!mayEdit} class="min-w-0 rounded-2xl border border-line bg-card px-5">
    <legend class="sr-only">The page’s rules</legend>
    <AppointmentSection {editor} {desks} />
    <Section title="Line-up">
      <Sentence mends={editor.mendsUnder('times.lineUp')}>
        books the time of
        {#if soleSeat}
          <Select
            aria-label="Host"
            class="w-56 py-1.5"
            placeholder=""
            value={soleSeat.hostIds[0]}
            onchange={(event: Event & { currentTarget: HTMLSelectElement }) => (soleSeat.hostIds = [event.currentTarget.value])}
            items={hosts.filter((choice) => choice.mayOffer || choice.id === soleSeat.hostIds[0]).map((choice) => ({ value: choice.id, name: choice.name }))}
          />
        {:else}
          <strong>{lineUpInWords(times.lineUp.map((seat) => seat.hostIds.map(nameOf)))}</strong>
        {/if}
      </Sentence>
      <CalendarChoices {lineUp} {calendars} bind:choices={() => times.calendars ?? [], (next) => (times.calendars = next)} mends={editor.mendsUnder('times.calendars')} />
      <p class="text-sm text-muted">
        {#if withoutCalendar.length > 0}
          No calendar is asked for {withoutCalendar.map((each) => each.name).join(', ')}, so only bookings made here are in the way. <a class="underline underline-offset-4" href="/work/calendars">See calendars</a>
        {/if}
      </p>
    </Section>
    <TimesSection {editor} {lineUp} />
    <Section title="Limits">
      <Sentence mends={[editor.mend('times.bufferBefore'), editor.mend('times.bufferAfter')]}>
        keep free <NumberField id="buffer-before" label="Minutes kept free before" bind:value={times.bufferBefore} was={saved?.form.times.bufferBefore} max={1440} /> min before and
        <NumberField id="buffer-after" label="Minutes kept free after" bind:value={times.bufferAfter} was={saved?.form.times.bufferAfter} max={1440} /> min after
      </Sentence>
    </Section>
    <QuestionsSection {editor} />
    <ChangesSection {editor} />
    <PostSection {editor} {tokens} />
  </fieldset>

  <div class="space-y-[14px] lg:sticky lg:top-[76px]">
    <SupplyPanel
      supply={editor.supply}
      problem={editor.supplyProblem}
      before={isPublished ? editor.before : undefined}
      change={isPublished ? editor.change : { gained: 0, lost: 0 }}
      durations={times.durations}
      onduration={(minutes) => (editor.duration = minutes)}
    />
    {#if record.length > 0}
      <section aria-labelledby="page-record" class="rounded-2xl border border-line bg-card p-4">
        <h2 id="page-record" class="mb-1 text-[17px]">What was done</h2>
        <RecordList lines={record.slice(0, 6)} zone={me.zone} />
      </section>
    {/if}
  </div>
</div>

<LeaveGuard isTouched={editor.isTouched} />

<div aria-live="polite" class="fixed right-6 bottom-6 z-50">
  {#if told}
    <Toast dismissable class="border border-line bg-card text-ink" onclose={() => (told = undefined)}>{told}</Toast>
  {/if}
</div>
