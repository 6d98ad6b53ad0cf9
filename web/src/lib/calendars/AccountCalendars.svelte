<script lang="ts">
  import Mend from '$lib/ui/Mend.svelte';
  import { Checkbox, Radio } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';

  interface Props {
    found: Schemas['AccountFound'];
    chosen: string[];
    writeTo: string | null;
    /** Whether one of them can be the one that bookings are written to. */
    mayWrite: boolean;
    mend: string | undefined;
  }

  let { found, chosen = $bindable(), writeTo = $bindable(), mayWrite, mend }: Props = $props();

  function toggle(path: string, on: boolean): void {
    chosen = on ? [...chosen, path] : chosen.filter((other) => other !== path);
    if (!on && writeTo === path) writeTo = null;
  }
</script>

<fieldset>
  <legend class="mb-1">Calendars at {found.server}</legend>
  <ul class="divide-y divide-line rounded-lg border border-line">
    {#each found.calendars as calendar (calendar.path)}
      <li class="flex flex-wrap items-center gap-x-6 gap-y-1 px-3 py-2">
        <Checkbox
          checked={chosen.includes(calendar.path)}
          disabled={calendar.isJoined}
          onchange={(event: Event & { currentTarget: HTMLInputElement }) =>
            toggle(calendar.path, event.currentTarget.checked)}>{calendar.name}</Checkbox
        >
        {#if calendar.isJoined}<span class="text-sm text-muted">joined already</span>
        {:else if !calendar.mayWrite}<span class="text-sm text-muted">can only be read</span>
        {:else if mayWrite && chosen.includes(calendar.path)}
          <Radio
            name="write-to"
            value={calendar.path}
            bind:group={writeTo}
            aria-label="New bookings are written to {calendar.name}: new bookings are written here"
            >new bookings are written here</Radio
          >
        {/if}
      </li>
    {/each}
  </ul>
  {#if mend}<Mend words={mend} />{/if}
</fieldset>
