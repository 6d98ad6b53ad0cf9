<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { cityOf, ownZone } from '$lib/time/clock';
  import { findZones, offsetWords, zoneOf, zoneTable } from '$lib/time/zones';

  interface Props {
    id: string;
    value: string;
    label?: string;
    class?: string;
    /** Of the box itself, as class is of what is around it. */
    box?: string;
    /** What it says where no zone is chosen; without it one has to be. */
    none?: string;
    onchosen?: (zone: string) => void;
  }

  let { id, value = $bindable(), label, class: more = '', box = '', none, onchosen }: Props = $props();

  interface Option {
    id: string;
    name: string;
    beside: string;
  }

  let table = $state.raw<Awaited<ReturnType<typeof zoneTable>> | undefined>(undefined);
  let typed = $state<string | undefined>(undefined);
  let isOpen = $state(false);
  let at = $state(0);

  const shown = $derived.by(() => {
    if (value === '') return none ?? '';
    const zone = table && zoneOf(table.zones, value);
    return zone ? `${zone.city} (${offsetWords(zone.offset)})` : cityOf(value);
  });
  const options = $derived.by((): Option[] => {
    if (!table) return [];
    const { zones, usual } = table;
    const search = typed?.trim() ?? '';
    const found =
      search !== ''
        ? findZones(zones, search)
        : [...new Set([ownZone(), ...usual, ...(value === '' ? [] : [value]), 'UTC'])].flatMap(
            (one) => zoneOf(zones, one) ?? [],
          );
    return [
      ...(none !== undefined && search === '' ? [{ id: '', name: none, beside: '' }] : []),
      ...[...new Set(found)].map((zone) => ({
        id: zone.id,
        name: zone.country === '' ? zone.city : `${zone.city}, ${zone.country}`,
        beside: offsetWords(zone.offset),
      })),
    ];
  });

  // Without the table the zone still stands there; it can be chosen once it is fetched.
  const fetch = (): void =>
    void zoneTable().then(
      (answer) => (table = answer),
      () => undefined,
    );
  onMount(fetch);

  function open(): void {
    if (isOpen) return;
    [isOpen, at] = [true, 0];
    fetch();
  }

  function close(): void {
    [isOpen, typed] = [false, undefined];
  }

  function choose(option: Option | undefined): void {
    if (!option) return;
    value = option.id;
    close();
    onchosen?.(option.id);
  }

  function press(event: KeyboardEvent): void {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) {
      event.preventDefault();
      if (isOpen) at = (at + step + options.length) % Math.max(1, options.length);
      open();
    } else if (event.key === 'Enter' && isOpen) {
      event.preventDefault();
      choose(options[at]);
    } else if (event.key === 'Escape' && isOpen) {
      event.stopPropagation();
      close();
    }
  }
</script>

<div class="relative {more}">
  <Input
    {id}
    role="combobox"
    aria-label={label}
    aria-expanded={isOpen}
    aria-controls="{id}-zones"
    aria-autocomplete="list"
    aria-activedescendant={isOpen && options[at] ? `${id}-zone-${String(at)}` : undefined}
    autocomplete="off"
    class={box}
    bind:value={
      () => typed ?? shown,
      (words) => {
        open();
        [typed, at] = [words ?? '', 0];
      }
    }
    onfocus={() => {
      open();
      const box = document.getElementById(id);
      if (box instanceof HTMLInputElement) box.select();
    }}
    onclick={open}
    onkeydown={press}
    onblur={close}
  />
  {#if isOpen}
    <ul
      id="{id}-zones"
      role="listbox"
      aria-label={label ?? 'Time zones'}
      class="absolute z-40 mt-1 max-h-72 w-max max-w-80 min-w-full overflow-y-auto rounded-lg border border-line-strong bg-card py-1 text-ink shadow"
    >
      {#each options as option, i (option.id)}
        <li
          id="{id}-zone-{i}"
          role="option"
          aria-selected={i === at}
          class="flex min-h-9 cursor-pointer items-center justify-between gap-4 px-3 {i === at ? 'bg-lane' : ''}"
          onpointerdown={(event) => {
            // Before the field is left, which would close the list.
            event.preventDefault();
            choose(option);
          }}
        >
          <span>{option.name}</span><span class="text-sm text-muted">{option.beside}</span>
        </li>
      {:else}
        <li role="option" aria-selected="false" class="px-3 py-1.5 text-sm text-muted">
          {table ? 'No zone has such a city or country.' : 'Loading …'}
        </li>
      {/each}
      {#if (typed?.trim() ?? '') === ''}<li role="presentation" class="px-3 py-1.5 text-sm text-muted">
          Type a city or country
        </li>{/if}
    </ul>
  {/if}
</div>
