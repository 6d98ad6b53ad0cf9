<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import DurationChips from '$lib/pages/DurationChips.svelte';
  import LengthField from '$lib/pages/LengthField.svelte';
  import Sentence from '$lib/pages/Sentence.svelte';
  import { weekdays } from '$lib/hours/week';
  import { shortDate } from '$lib/time/format';
  import { readyEnds } from './ends';
  import Choice from '$lib/ui/Choice.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';
  import type { Offer } from './form';
  import type { LinkEditing } from './LinkEditing.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    link: LinkEditing;
    today: string;
    /** Lengths that the team's links took last. */
    lately: readonly number[];
  }

  let { link, today, lately }: Props = $props();

  const ways: readonly { value: Offer['by']; text: string }[] = [
    { value: 'picked', text: 'times I pick' },
    { value: 'painted', text: 'free time in what I paint' },
    { value: 'free', text: 'any free time' },
    { value: 'asked', text: 'what suits the guest' },
  ];
  const dayNames = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'] as const;
  const hours = Array.from({ length: 25 }, (_, hour) => ({ value: hour * 60, name: String(hour) }));
  const { offer } = $derived(link);
  let more = $state(false);
  const ends = $derived(readyEnds(offer.from ?? today));

  /** A link that ended before would offer nothing there. */
  function endOn(until: string): void {
    link.setOffer({ until });
    if (link.form.details.endsOn < until) link.setDetails({ endsOn: until });
  }

  function toggle(day: (typeof dayNames)[number]): void {
    // None chosen is all of them.
    const chosen = offer.days.length === 0 ? [...dayNames] : offer.days;
    const next = chosen.includes(day)
      ? chosen.filter((one) => one !== day)
      : dayNames.filter((one) => one === day || chosen.includes(one));
    link.setOffer({ days: next.length === 7 ? [] : next });
  }
</script>

<Sentence
  mends={[
    ...link.mendsUnder('times.offer'),
    ...link.mendsUnder('times.durations'),
    link.mend('times.bufferBefore'),
    link.mend('times.bufferAfter'),
    link.mend('times.notice'),
    link.mend('times.step'),
    link.mend('details.endsOn'),
  ]}
>
  offer <Segments label="What is offered" options={ways} value={offer.by} onchoose={(by) => link.setOffer({ by })} />
  {#if offer.by === 'asked'}
    <Choice
      ><input
        type="checkbox"
        class="rounded border-edge"
        checked={link.form.details.booksByItself ?? false}
        onchange={({ currentTarget }) => link.setDetails({ booksByItself: currentTarget.checked })}
      />
      book the best that fits by itself</Choice
    >
  {/if}
  <DurationChips bind:durations={link.form.times.durations} {lately} />
  <span class="inline-flex flex-wrap items-center gap-1.5"
    >from <span class="w-40"
      ><Input
        type="date"
        aria-label="Offered from"
        class="py-1.5"
        bind:value={() => offer.from ?? today, (from) => link.setOffer({ from: from && from > today ? from : null })}
      /></span
    >
    until
    <span class="w-40"
      ><Input
        type="date"
        aria-label="Offered until"
        class="py-1.5"
        bind:value={() => offer.until, (until) => until && link.setOffer({ until })}
      /></span
    >
    {#each ends as end (end)}<button
        type="button"
        aria-label="Offer until {shortDate(end)}"
        aria-pressed={offer.until === end}
        class="min-h-9 rounded-lg border px-2 whitespace-nowrap {offer.until === end
          ? 'border-chosen bg-chosen text-on-chosen'
          : 'border-dashed border-edge text-ink hover:bg-lane'}"
        onclick={() => endOn(end)}>{shortDate(end)}</button
      >{/each}</span
  >
  <span class="inline-flex items-center gap-1.5">
    hours
    <span class="w-20"
      ><Select
        aria-label="Earliest hour"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        value={offer.fromMinute}
        onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
          link.setOffer({ fromMinute: Number(event.currentTarget.value) })}
        items={hours.slice(0, 24)}
      /></span
    >
    to
    <span class="w-20"
      ><Select
        aria-label="Latest hour"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        value={offer.toMinute}
        onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
          link.setOffer({ toMinute: Number(event.currentTarget.value) })}
        items={hours.slice(1)}
      /></span
    >
  </span>
  <TextButton class="min-h-9" aria-expanded={more} onclick={() => (more = !more)}
    >{more ? 'fewer rules' : 'more rules'}</TextButton
  >
</Sentence>
{#if offer.by === 'asked'}
  <p class="mt-1 text-sm text-muted">
    The guest sees none of these times. They mark when it suits them; {link.form.details.booksByItself
      ? 'the best time that fits is booked at once'
      : 'you see what fits, the best first, and book it with one press'}.
  </p>
{/if}
{#if more}
  <div class="mt-2 space-y-2 rounded-xl border border-line p-3">
    <Sentence>
      keep free <LengthField id="link-before" label="Kept free before" bind:value={link.form.times.bufferBefore} /> before
      and <LengthField id="link-after" label="Kept free after" bind:value={link.form.times.bufferAfter} /> after, not within
      <LengthField id="link-notice" label="Notice" bind:value={link.form.times.notice} />
    </Sentence>
    <Sentence>
      on
      <span role="group" aria-label="Days of the week" class="inline-flex flex-wrap gap-1.5">
        {#each weekdays as day, i (day.key)}
          {@const name = dayNames[i] ?? 'monday'}
          {@const isOn = offer.days.length === 0 || offer.days.includes(name)}
          <button
            type="button"
            aria-pressed={isOn}
            class="min-h-9 rounded-lg border px-2.5 {isOn
              ? 'border-chosen bg-chosen text-on-chosen'
              : 'border-dashed border-edge text-muted'}"
            onclick={() => toggle(name)}>{day.short}</button
          >
        {/each}
      </span>
      starts every <LengthField id="link-step" label="From start to start" bind:value={link.form.times.step} />
      in
      <span class="w-52"
        ><ZoneSelect id="link-zone" label="Zone of the link" box="py-1.5" bind:value={link.form.times.zone} /></span
      >
    </Sentence>
    <Sentence>
      show
      <span class="w-40"
        ><Select
          aria-label="How many openings are shown"
          placeholder=""
          classes={{ select: 'py-1.5' }}
          value={offer.mostShown ?? 0}
          onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
            link.setOffer({ mostShown: Number(event.currentTarget.value) || null })}
          items={[
            { value: 0, name: 'all openings' },
            ...[3, 5, 8, 12, 20, 40].map((most) => ({ value: most, name: `the best ${String(most)}` })),
          ]}
        /></span
      >
      {#if offer.by === 'picked'}<span class="text-sm"
          >Days and hours limit the suggestions; you can pick any time yourself.</span
        >{/if}
    </Sentence>
  </div>
{/if}
