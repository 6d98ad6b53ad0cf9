<script lang="ts">
  import { Select } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { usualHours, weekInWords } from '$lib/hours/week';
  import WeekHours from '$lib/hours/WeekHours.svelte';
  import { cityOf } from '$lib/time/clock';
  import Segments from '$lib/ui/Segments.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';
  import type { EditorState } from './EditorState.svelte';
  import { Input } from 'flowbite-svelte';
  import { closeStarts, gridExample, neighboursExample, noticeExample, windowExample } from './examples';
  import TextButton from '$lib/ui/TextButton.svelte';
  import Example from './Example.svelte';
  import { usualDetails } from './form';
  import BlockList from './BlockList.svelte';
  import NamedHours from './NamedHours.svelte';
  import LengthField from './LengthField.svelte';
  import NumberField from './NumberField.svelte';
  import Section from './Section.svelte';
  import Sentence from './Sentence.svelte';
  import Choice from '$lib/ui/Choice.svelte';

  /** @prop lineUp Everybody who has a seat, each once. */
  let { editor, lineUp }: { editor: EditorState; lineUp: Schemas['HostView'][] } = $props();

  const times = $derived(editor.form.times);
  const saved = $derived(editor.base?.times);
  const close = $derived(editor.supply && closeStarts(editor.supply, times.step));
  const windows = [
    { value: 'ahead', name: 'a number of days ahead' },
    { value: 'dates', name: 'between two dates' },
    { value: 'open', name: 'no end date' },
  ] as const;
  const details = $derived(editor.form.details ?? usualDetails());
  const modes = [
    { value: 'hosts', text: 'The hosts’ hours' },
    { value: 'page', text: 'This page’s hours' },
    { value: 'both', text: 'Both' },
  ] as const;

  function chooseMode(mode: (typeof modes)[number]['value']): void {
    times.hoursMode = mode;
    if (mode !== 'hosts') times.hours ??= usualHours(times.zone);
  }

  function chooseZone(zone: string): void {
    times.zone = zone;
    // The page's own hours are typed by the page's clock.
    if (times.hours && !times.hoursOf) times.hours.zone = zone;
  }
</script>

<Section title="Times">
  <Segments
    label="Whose hours count"
    options={times.blocks ? modes.slice(1) : modes}
    value={times.hoursMode}
    onchoose={chooseMode}
  />
  {#if times.hoursMode !== 'page'}
    <div class="text-sm text-muted">
      {#each lineUp as host (host.id)}
        <p>
          {#if host.hours}
            {host.name}: {weekInWords(host.hours.week)}{host.hours.zone === times.zone
              ? ''
              : `, ${cityOf(host.hours.zone)} time`}.
          {:else}
            {host.name} is always open.
          {/if}
        </p>
      {/each}
      {#if times.hoursMode === 'both'}<p>A time is open where both are.</p>{/if}
    </div>
  {/if}
  {#if times.blocks}
    <BlockList blocks={times.blocks} />
  {:else if times.hoursMode !== 'hosts' && times.hours}
    <NamedHours {editor} />
    {#if times.hoursOf}
      <p class="text-sm text-muted">
        {weekInWords(times.hours.week)}{times.hours.zone === times.zone ? '' : `, ${cityOf(times.hours.zone)} time`}.
        <a class="underline underline-offset-4" href="/work/hours">Change them</a>
      </p>
    {:else}<WeekHours
        bind:week={times.hours.week}
        bind:unread={editor.unreadDays}
        mendsOf={(day) => editor.mendsUnder(`times.hours.week.${day}`)}
      />{/if}
  {/if}
  {#if editor.unreadDays.length > 0}<p class="text-sm text-brick" role="alert">
      The times marked above can’t be read yet; nothing is saved until they are fixed.
    </p>{/if}
  <Sentence mends={[editor.mend('times.step'), editor.mend('times.stepOffset')]}>
    starts every <NumberField
      id="step"
      label="Minutes from start to start"
      bind:value={times.step}
      was={saved?.step}
      min={5}
      max={1440}
    /> min,
    <Select
      aria-label="What starts are counted from"
      class="w-64"
      classes={{ select: 'py-1.5' }}
      placeholder=""
      bind:value={times.stepFrom}
      items={[
        { value: 'clock', name: 'by the clock' },
        { value: 'open', name: 'from the start of each open stretch' },
      ]}
    />
    {#if times.stepFrom === 'clock'}
      <span class="inline-flex items-center gap-2.5"
        >counted from <NumberField
          id="step-offset"
          label="Minutes after midnight of the first start"
          bind:value={times.stepOffset}
          was={saved?.stepOffset}
          max={1439}
        /> min past midnight</span
      >
    {/if}
  </Sentence>
  <Example text={editor.worked && gridExample(editor.worked)} />
  <Example text={neighboursExample(times)} />
  {#if close && times.stepFrom === 'open'}
    <p class="text-sm text-amber-text" data-test="close-starts">
      Hosts begin at different minutes, so guests see {close}.
      <TextButton class="min-h-7" onclick={() => (times.stepFrom = 'clock')}>Start by the clock</TextButton>
    </p>
  {/if}
  <Choice class="inline-flex min-h-9 text-ink"
    ><input type="checkbox" class="rounded border-edge" bind:checked={times.startsApart} /> show guests only starts at
    least
    {times.step} min apart</Choice
  >
  <Sentence mends={[editor.mend('times.aheadDays'), ...editor.mendsUnder('times.window')]}>
    open
    <span class="w-56"
      ><Select
        aria-label="Booking window"
        classes={{ select: 'py-1.5' }}
        placeholder=""
        bind:value={
          () => times.window?.kind ?? 'ahead',
          (kind) => (times.window = kind === 'ahead' ? null : { kind, from: null, to: null })
        }
        items={[...windows]}
      /></span
    >
    {#if times.window === null || times.window === undefined}
      today and <NumberField
        id="ahead"
        label="Days ahead"
        bind:value={times.aheadDays}
        was={saved?.aheadDays}
        max={365}
      /> days ahead
    {:else if times.window.kind === 'dates'}
      {@const window = times.window}
      <span class="w-44"
        ><Input
          aria-label="First date"
          type="date"
          class="py-1.5"
          bind:value={() => window.from ?? '', (from) => (times.window = { ...window, from: from || null })}
        /></span
      >
      to
      <span class="w-44"
        ><Input
          aria-label="Last date"
          type="date"
          class="py-1.5"
          bind:value={() => window.to ?? '', (to) => (times.window = { ...window, to: to || null })}
        /></span
      >
    {/if}
  </Sentence>
  <Example text={editor.worked && editor.supply && windowExample(times, editor.worked, editor.supply.lastDate)} />
  <Sentence mends={[editor.mend('times.notice')]}>
    not within <LengthField id="notice" label="Notice" bind:value={times.notice} was={saved?.notice} /> from now
  </Sentence>
  <Example text={editor.worked && noticeExample(times, editor.worked)} />
  <Sentence mends={[editor.mend('times.zone'), editor.mend('times.hours.zone')]}>
    in the time of <ZoneSelect
      id="zone"
      label="Time zone"
      class="w-64"
      box="py-1.5"
      bind:value={() => times.zone, chooseZone}
    />
    <Choice class="inline-flex min-h-9 text-ink"
      ><input
        id="place-zone-only"
        type="checkbox"
        class="rounded border-edge"
        checked={details.face.placeZoneOnly}
        onchange={() =>
          (editor.form.details = { ...details, face: { ...details.face, placeZoneOnly: !details.face.placeZoneOnly } })}
      /> show guests the place’s time only</Choice
    >
  </Sentence>
</Section>
