<script lang="ts">
  import { Checkbox, Input, Select } from 'flowbite-svelte';
  import Sentence from '$lib/pages/Sentence.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { dated, orderChoices, stateChoices, type BookingFilter } from './filter';

  interface Props {
    filter: BookingFilter;
    pages: { id: string; title: string }[];
    kinds: string[];
    hosts: { id: string; name: string }[];
    /** Whose bookings alone are shown; empty for everybody's. */
    guest: string;
    people: { id: string; name: string }[];
    mends: (string | undefined)[];
    onchange: (filter: BookingFilter) => void;
  }

  let { filter, pages, kinds, hosts, guest, people, mends, onchange }: Props = $props();

  const keeper = $derived(filter.withoutKeeper ? 'none' : (filter.keeper ?? 'any'));

  function keptBy(value: string): void {
    onchange({
      ...filter,
      withoutKeeper: value === 'none',
      keeper: value === 'any' || value === 'none' ? null : value,
    });
  }
</script>

<section aria-label="Which bookings are shown" class="space-y-2">
  <Sentence>
    Bookings of
    <span class="w-48"
      ><Select
        aria-label="Page"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={() => filter.page ?? '', (page) => onchange({ ...filter, page: page || null })}
        items={[{ value: '', name: 'any page' }, ...pages.map((page) => ({ value: page.id, name: page.title }))]}
      /></span
    >
    {#if kinds.length > 0}
      of
      <span class="w-44"
        ><Select
          aria-label="Kind of page"
          placeholder=""
          classes={{ select: 'py-1.5' }}
          bind:value={() => filter.kind ?? '', (kind) => onchange({ ...filter, kind })}
          items={[{ value: '', name: 'any kind' }, ...kinds.map((kind) => ({ value: kind, name: kind }))]}
        /></span
      >
    {/if}
    with
    <span class="w-40"
      ><Select
        aria-label="Host"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={() => filter.host ?? '', (host) => onchange({ ...filter, host: host || null })}
        items={[{ value: '', name: 'any host' }, ...hosts.map((host) => ({ value: host.id, name: host.name }))]}
      /></span
    >
    for guests of
    <span class="w-40"
      ><Select
        aria-label="Keeper"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={() => keeper, (value) => keptBy(value)}
        items={[
          { value: 'any', name: 'any keeper' },
          { value: 'none', name: 'no keeper' },
          ...people.map((person) => ({ value: person.id, name: person.name })),
        ]}
      /></span
    >
  </Sentence>
  <Sentence {mends}>
    {#if guest !== ''}
      <span
        >only <strong class="text-ink">{guest}</strong>
        <TextButton class="min-h-6 text-fine" onclick={() => onchange({ ...filter, guest: null })}>everybody</TextButton
        ></span
      >
    {/if}
    <span class="w-48"
      ><Select
        aria-label="State"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={() => filter.state ?? 'any', (state) => onchange({ ...filter, state })}
        items={stateChoices(filter.when)}
      /></span
    >
    <label class="flex items-center gap-2"
      >from
      <Input
        type="date"
        class="w-40 py-1.5"
        value={filter.from ?? ''}
        onchange={(event) => onchange(dated(filter, 'from', event.currentTarget.value))}
      /></label
    >
    <label class="flex items-center gap-2"
      >to
      <Input
        type="date"
        class="w-40 py-1.5"
        value={filter.to ?? ''}
        onchange={(event) => onchange(dated(filter, 'to', event.currentTarget.value))}
      /></label
    >
    <Checkbox
      class="text-ink"
      checked={filter.flagged ?? false}
      onchange={() => onchange({ ...filter, flagged: !filter.flagged })}>flagged by screening</Checkbox
    >
    <span class="ml-auto w-48 max-md:ml-0"
      ><Select
        aria-label="Order"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={() => filter.order ?? 'usual', (order) => onchange({ ...filter, order })}
        items={orderChoices}
      /></span
    >
  </Sentence>
</section>
