<script lang="ts">
  import type { EditorState } from './EditorState.svelte';
  import { bufferExample, capExample, neighboursExample, placesExample } from './examples';
  import { usualDetails } from './form';
  import Example from './Example.svelte';
  import NumberField from './NumberField.svelte';
  import Section from './Section.svelte';
  import Sentence from './Sentence.svelte';
  import Choice from '$lib/ui/Choice.svelte';

  let { editor }: { editor: EditorState } = $props();

  const times = $derived(editor.form.times);
  const details = $derived(editor.form.details ?? usualDetails());
  const was = $derived(editor.base?.times);

  /** What counts where a page says nothing of its own. */
  const USUAL_MOST_OPEN = 5;
</script>

<Section title="Limits">
  <Sentence mends={[editor.mend('times.bufferBefore'), editor.mend('times.bufferAfter')]}>
    keep free <NumberField
      id="buffer-before"
      label="Minutes kept free before"
      bind:value={times.bufferBefore}
      was={was?.bufferBefore}
      max={1440}
    /> min before and
    <NumberField
      id="buffer-after"
      label="Minutes kept free after"
      bind:value={times.bufferAfter}
      was={was?.bufferAfter}
      max={1440}
    /> min after
  </Sentence>
  <Example text={editor.worked && bufferExample(editor.worked)} />
  <Example text={neighboursExample(times)} />
  <Sentence mends={[editor.mend('times.dailyCap'), editor.mend('times.weeklyCap')]}>
    <Choice class="inline-flex min-h-9 text-ink"
      ><input
        type="checkbox"
        class="rounded border-edge"
        checked={times.dailyCap !== null}
        onchange={() => (times.dailyCap = times.dailyCap === null ? (was?.dailyCap ?? 3) : null)}
      /> at most</Choice
    >
    {#if times.dailyCap !== null}<NumberField
        id="daily-cap"
        label="Most sessions a day"
        bind:value={() => times.dailyCap ?? 1, (cap) => (times.dailyCap = cap)}
        was={was?.dailyCap ?? undefined}
        min={1}
        max={1000}
      />{:else}any number{/if}
    a day,
    <Choice class="inline-flex min-h-9 text-ink"
      ><input
        type="checkbox"
        class="rounded border-edge"
        checked={times.weeklyCap !== null}
        onchange={() => (times.weeklyCap = times.weeklyCap === null ? (was?.weeklyCap ?? 10) : null)}
      /> at most</Choice
    >
    {#if times.weeklyCap !== null}<NumberField
        id="weekly-cap"
        label="Most sessions a week"
        bind:value={() => times.weeklyCap ?? 1, (cap) => (times.weeklyCap = cap)}
        was={was?.weeklyCap ?? undefined}
        min={1}
        max={1000}
      />{:else}any number{/if}
    a week
  </Sentence>
  <Example text={editor.worked && capExample(times, editor.worked)} />
  <Sentence mends={[editor.mend('times.places')]}>
    <NumberField
      id="places"
      label="Places of one session"
      bind:value={times.places}
      was={was?.places}
      min={1}
      max={1000}
    />
    {times.places === 1
      ? 'place: each session is for one guest'
      : 'places: guests share a session, and see how many are left'}
  </Sentence>
  <Example text={editor.worked && placesExample(times, editor.worked)} />
  <Sentence mends={[editor.mend('details.mostOpen')]}>
    one guest has at most
    <NumberField
      id="most-open"
      label="Most bookings to come of one guest"
      bind:value={
        () => details.mostOpen ?? USUAL_MOST_OPEN,
        (most) => (editor.form.details = { ...details, mostOpen: most === USUAL_MOST_OPEN ? null : most })
      }
      min={1}
      max={100}
    />
    bookings to come
  </Sentence>
  <Choice class="inline-flex min-h-9 text-ink"
    ><input
      type="checkbox"
      class="rounded border-edge"
      bind:checked={() => details.forOthers, (forOthers) => (editor.form.details = { ...details, forOthers })}
    /> one may book for someone else, such as a parent for a child</Choice
  >
</Section>
