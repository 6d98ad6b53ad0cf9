<script lang="ts">
  import { Toast } from 'flowbite-svelte';
  import { goto } from '$app/navigation';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import ActingForNote from '$lib/acting/ActingForNote.svelte';
  import RecordList from '$lib/record/RecordList.svelte';
  import { DarkQuestion } from '$lib/supply/DarkQuestion.svelte';
  import DarkPanel from '$lib/supply/DarkPanel.svelte';
  import { elsewhere, relaxationWords, taken } from '$lib/supply/relaxations';
  import RelaxationsPanel from '$lib/supply/RelaxationsPanel.svelte';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import StateBadge from '$lib/ui/StateBadge.svelte';
  import AfterwardsSection from './AfterwardsSection.svelte';
  import AppointmentSection from './AppointmentSection.svelte';
  import ChangesSection from './ChangesSection.svelte';
  import CheckUp from './CheckUp.svelte';
  import CopyButton from './CopyButton.svelte';
  import type { EditorState } from './EditorState.svelte';
  import type { PageForm } from './form';
  import History from './History.svelte';
  import LeaveGuard from './LeaveGuard.svelte';
  import Looks from './Looks.svelte';
  import LimitsSection from './LimitsSection.svelte';
  import LineUpSection from './LineUpSection.svelte';
  import { missingPlace } from './missingPlace';
  import PlaceMissing from './PlaceMissing.svelte';
  import PostSection from './PostSection.svelte';
  import QuestionsSection from './QuestionsSection.svelte';
  import Share from './Share.svelte';
  import ScreeningSection from './ScreeningSection.svelte';
  import BlocksBeyond from './BlocksBeyond.svelte';
  import SectionList from './SectionList.svelte';
  import { sectionsOf } from './sections';
  import SupplyPanel from './SupplyPanel.svelte';
  import TimesSection from './TimesSection.svelte';

  interface Props {
    editor: EditorState;
    hosts: Schemas['HostView'][];
    desks: Schemas['DeskView'][];
    calendars: Schemas['CalendarView'][];
    /** All pages, to lead guests to. */
    pages: Schemas['PageName'][];
    me: Schemas['Me'];
    /** What words of its own can have filled in. */
    tokens: Schemas['TokenView'][];
    guestFields: Schemas['GuestFieldView'][];
    /** What was done to the page, the latest first. */
    record?: Schemas['RecordLine'][];
    onsaved?: (page: Schemas['PageView']) => void;
  }

  let { editor, hosts, desks, calendars, pages, me, tokens, guestFields, record = [], onsaved }: Props = $props();

  const times = $derived(editor.form.times);
  const saved = $derived(editor.saved);
  const { isPublished } = $derived(editor);
  const hostIds = $derived(times.lineUp.flatMap((seat) => seat.hostIds));
  const lineUp = $derived(hosts.filter((candidate) => hostIds.includes(candidate.id)));
  const dark = new DarkQuestion(({ date, fromMinute, toMinute }) =>
    must(
      api.POST('/api/pages/dark', {
        body: {
          times: $state.snapshot(editor.form.times),
          duration: editor.supply?.duration ?? null,
          pageId: editor.saved?.id ?? null,
          date,
          fromMinute,
          toMinute,
        },
      }),
    ),
  );
  // Whoever coordinates may change what is theirs, or of hosts who let them.
  const mayEdit = $derived(me.isCoordinator && lineUp.every((host) => host.mayOffer));
  const missing = $derived(
    missingPlace(editor.form.placeKind, editor.form.place, editor.form.details?.place.hostsRing ?? true),
  );
  let sharing = $state(false);
  let told = $state<string | undefined>(undefined);

  // Any change of a rule shows right away what it does; a moment's pause keeps half-typed numbers from asking.
  $effect(() => {
    JSON.stringify(times);
    void editor.duration;
    void editor.weeks;
    const pause = setTimeout(
      () => void editor.reckon().then(() => Promise.all([editor.relax(), dark.askAgain()])),
      120,
    );
    return () => clearTimeout(pause);
  });

  function take(relaxation: Schemas['RelaxationView']): void {
    editor.take(taken($state.snapshot(editor.form), relaxation));
    told = `Applied: ${relaxationWords(relaxation)}. Guests see it once you publish.`;
  }

  function restore(form: PageForm, number: number): void {
    editor.take(form);
    told = `Version ${String(number)} is restored here. Guests see it once you publish.`;
  }

  async function copy(): Promise<void> {
    const view = await editor.copy();
    if (view) await goto(`/work/pages/${view.id}`);
  }

  /** Guests' page shows what is kept, so what is typed is kept first. */
  async function seeAsGuest(): Promise<void> {
    const saved = editor.isTouched || !editor.saved ? await editor.save() : editor.saved;
    if (saved) await goto(`/work/pages/${saved.id}/as-guest`);
  }

  async function act(doing: () => Promise<Schemas['PageView'] | undefined>, done: string): Promise<void> {
    told = undefined;
    const view = await doing();
    if (!view) {
      // To a field that needs a mend the press has led already.
      if (!editor.problem?.errors) document.querySelector('[role="alert"]')?.scrollIntoView({ block: 'center' });
      return;
    }
    told = done;
    onsaved?.(view);
  }
</script>

<header
  class="sticky top-0 z-20 -mx-4 mb-1 flex flex-wrap items-center justify-between gap-3 bg-paper px-4 pt-3 pb-2 lg:flex-nowrap md:-mx-[26px] md:-mt-3.5 md:px-[26px]"
>
  <div class="min-w-0 flex-1">
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
      {#if saved?.mark}<span
          class="rounded-lg bg-chosen px-2 py-0.5 font-heading font-bold text-on-chosen"
          title="Its mark on boards and lists">{saved.mark}</span
        >{/if}
      <h1 class="text-page leading-tight">{editor.form.title.trim() || saved?.form.title || 'New page'}</h1>
      {#if saved}<StateBadge state={saved.state} />{/if}
    </div>
    {#if saved}
      {@const path = saved.path.slice(1).replace('/', ' / ')}
      {@const link = 'min-h-6 text-sm text-muted underline underline-offset-4'}
      <p class="mt-0.5 flex items-center gap-x-3.5 text-sm whitespace-nowrap text-muted max-lg:flex-wrap">
        {#if isPublished}<a class="{link} min-w-0 truncate" href={saved.path} target="_blank" rel="noopener">{path}</a
          >{:else}<span class="min-w-0 truncate">{path}</span>{/if}
        {#if mayEdit}
          <a
            class={link}
            href="/api/pages/{saved.id}/case?duration={editor.duration === 0
              ? saved.form.times.durations[0]
              : editor.duration}"
            download>Case file</a
          >
          <a class={link} href="/api/pages/{saved.id}/export" download>Export</a>
          <button type="button" class={link} disabled={editor.busy} onclick={() => void copy()}>Copy</button>
          {#if isPublished}<button
              type="button"
              class={link}
              disabled={editor.busy}
              onclick={() => void act(() => editor.unpublish(), 'Guests can’t open the page now. It is a draft again.')}
              >Unpublish</button
            >{/if}
          {#if saved.state === 'archived'}
            <button
              type="button"
              class={link}
              disabled={editor.busy}
              onclick={() => void act(() => editor.turn('restore'), 'It is a draft again.')}>Restore</button
            >
          {:else}
            <button
              type="button"
              class={link}
              disabled={editor.busy}
              onclick={() =>
                void act(() => editor.turn('archive'), 'Archived. Guests can’t open it; existing bookings stay.')}
              >Archive</button
            >
          {/if}
          {#if editor.changeCount > 0}<button
              type="button"
              class={link}
              disabled={editor.busy}
              onclick={() => void act(() => editor.discard(), 'Changes discarded. The page is as guests see it.')}
              >Discard changes</button
            >{/if}
        {/if}
      </p>
    {/if}
  </div>
  <div class="flex flex-wrap gap-3 lg:shrink-0">
    {#if mayEdit}
      {#if isPublished}
        {#if editor.isTouched}<ActionButton
            disabled={editor.busy}
            onclick={() => void act(() => editor.save(), 'Saved. Guests see it once you publish.')}
            >Save changes</ActionButton
          >{/if}
        <ActionButton disabled={editor.busy} onclick={() => void seeAsGuest()}>View as a guest</ActionButton>
        <!-- A new page is on its way to its own address as it is saved: what is opened here would go with it. -->
        {#if !onsaved}<ActionButton onclick={() => (sharing = true)}>Share</ActionButton>{/if}
        <ActionButton
          kind="main"
          disabled={editor.busy || editor.changeCount === 0}
          onclick={() => void act(() => editor.publish(), 'Published. Guests see it as it is now.')}
          >{editor.changeCount === 0
            ? 'Nothing to publish'
            : `Publish ${counted(editor.changeCount, 'change', 'changes')}`}</ActionButton
        >
      {:else if saved?.state !== 'archived'}
        <ActionButton
          disabled={editor.busy || !editor.isChanged}
          onclick={() => void act(() => editor.save(), 'Saved as a draft.')}>Save as draft</ActionButton
        >
        <ActionButton disabled={editor.busy} onclick={() => void seeAsGuest()}>View as a guest</ActionButton>
        <ActionButton
          kind="main"
          disabled={editor.busy}
          onclick={() => void act(() => editor.publish(), 'Published. Guests can book it now.')}>Publish</ActionButton
        >
      {/if}
    {/if}
  </div>
</header>

<ActingForNote hosts={lineUp} own={me.hostId} />
{#if editor.problem}
  <div class="mb-3"><ProblemNote problem={editor.problem} /></div>
{/if}
{#if mayEdit && missing && (editor.changeCount > 0 || !isPublished)}
  <PlaceMissing words={missing} />
{/if}

{#if mayEdit}<BlocksBeyond {editor} />{/if}

<div class="grid items-start gap-[18px] lg:grid-cols-[136px_minmax(0,1fr)_minmax(340px,400px)]">
  <SectionList
    sections={sectionsOf(editor.form, (id) => hosts.find((candidate) => candidate.id === id)?.name ?? 'someone')}
  />
  <fieldset
    disabled={!mayEdit || saved?.state === 'archived'}
    class="min-w-0 rounded-2xl border border-line bg-card px-5"
  >
    <legend class="sr-only">The page’s rules</legend>
    <AppointmentSection {editor} {desks} kinds={me.kinds} />
    <LineUpSection {editor} {hosts} {calendars} />
    <TimesSection {editor} {lineUp} />
    <LimitsSection {editor} />
    <QuestionsSection {editor} fields={guestFields} />
    <ScreeningSection {editor} {pages} />
    <AfterwardsSection {editor} />
    <ChangesSection {editor} />
    <PostSection {editor} {tokens} />
  </fieldset>

  <div class="space-y-[14px] lg:sticky lg:top-[98px] lg:max-h-[calc(100vh-112px)] lg:overflow-y-auto">
    <SupplyPanel
      supply={editor.supply}
      problem={editor.countProblem}
      before={editor.before}
      was={editor.savedSupply}
      change={editor.change}
      durations={times.durations}
      weeks={editor.weeks}
      {dark}
      onduration={(minutes) => (editor.duration = minutes)}
      onweeks={(weeks) => (editor.weeks = weeks)}
    />
    <DarkPanel question={dark} />
    <RelaxationsPanel
      relaxations={editor.relaxations}
      elsewhere={(relaxation) => elsewhere(relaxation, editor.form.times.blocks != null)}
      {mayEdit}
      ontake={take}
    />
    <CheckUp {editor} {calendars} {desks} />
    {#if saved}<Looks pageId={saved.id} />{/if}
    {#if saved}<History pageId={saved.id} version={saved.version} zone={me.zone} {mayEdit} onrestore={restore} />{/if}
    {#if record.length > 0}
      <section aria-labelledby="page-record" class="rounded-2xl border border-line bg-card p-4">
        <h2 id="page-record" class="mb-1 text-part">Record</h2>
        <RecordList lines={record.slice(0, 6)} zone={me.zone} />
      </section>
    {/if}
  </div>
</div>

{#if sharing && saved}<Share page={saved} onclose={() => (sharing = false)} />{/if}
<LeaveGuard isTouched={editor.isTouched} />

<div aria-live="polite" class="fixed right-6 bottom-6 z-50">
  {#if told}
    <Toast dismissable class="border border-line bg-card text-ink" onclose={() => (told = undefined)}
      >{told}
      {#if told.startsWith('Published') && saved}<CopyButton
          words="Copy its address"
          value={location.origin + saved.path}
        />{/if}</Toast
    >
  {/if}
</div>
