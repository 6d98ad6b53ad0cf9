<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { lengthOf } from '$lib/time/format';

  let { durations = $bindable() }: { durations: number[] } = $props();

  let typed = $state<number | undefined>(undefined);

  function add(): void {
    if (typed && !durations.includes(typed)) durations = [...durations, typed];
    typed = undefined;
  }
</script>

<ul class="flex flex-wrap gap-2" aria-label="Durations">
  {#each durations as minutes, i (minutes)}
    <li class="inline-flex items-center rounded-lg border border-line-strong bg-card pl-3 text-ink">
      {#if i === 0}
        <span class="font-bold">{lengthOf(minutes)}</span>{#if durations.length > 1}<span
            class="ml-1.5 text-sm text-muted">preset</span
          >{/if}
      {:else}
        <button
          type="button"
          aria-label="Preset {lengthOf(minutes)}"
          title="Preset this one"
          class="min-h-9 hover:underline"
          onclick={() => (durations = [minutes, ...durations.filter((other) => other !== minutes)])}
          >{lengthOf(minutes)}</button
        >
      {/if}
      {#if durations.length > 1}
        <button
          type="button"
          aria-label="Remove {lengthOf(minutes)}"
          class="ml-1 h-9 w-8 rounded-r-lg hover:bg-lane"
          onclick={() => (durations = durations.filter((other) => other !== minutes))}>×</button
        >
      {:else}
        <span class="h-9 w-3"></span>
      {/if}
    </li>
  {/each}
</ul>
<span class="inline-flex items-center gap-2">
  <span class="w-[76px] shrink-0"
    ><Input
      id="add-duration"
      type="number"
      min="5"
      max="1440"
      aria-label="One more duration, in minutes"
      placeholder="min"
      bind:value={typed}
      class="py-1.5"
      onkeydown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        add();
      }}
    /></span
  >
  <button
    type="button"
    class="min-h-9 rounded-lg border border-dashed border-edge px-3 text-ink hover:bg-lane disabled:opacity-50"
    disabled={!typed}
    onclick={add}>+ duration</button
  >
</span>
