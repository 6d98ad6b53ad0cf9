<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { lengthOf } from '$lib/time/format';
  import { typedLength } from '$lib/time/typedLength';

  interface Props {
    durations: number[];
    /** Lengths that were used last, to press. */
    lately?: readonly number[];
  }

  let { durations = $bindable(), lately = [] }: Props = $props();

  let typed = $state('');
  const minutes = $derived(typedLength(typed));
  const others = $derived(lately.filter((one) => !durations.includes(one)));

  function add(more: number | undefined): void {
    if (more === undefined) return;
    if (!durations.includes(more)) durations = [...durations, more];
    typed = '';
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
  <span class="w-[84px] shrink-0"
    ><Input
      id="add-duration"
      aria-label="One more duration, such as 50 or 1 h 20"
      placeholder="1 h 20"
      aria-invalid={typed.trim() !== '' && minutes === undefined}
      bind:value={typed}
      class="py-1.5"
      onkeydown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        add(minutes);
      }}
    /></span
  >
  <button
    type="button"
    class="min-h-9 rounded-lg border border-dashed border-edge px-3 text-ink hover:bg-lane disabled:opacity-50"
    disabled={minutes === undefined}
    onclick={() => add(minutes)}>+ duration</button
  >
  {#each others as one (one)}<button
      type="button"
      aria-label="Add {lengthOf(one)}, used last"
      class="min-h-9 rounded-lg border border-dashed border-edge px-2.5 text-ink hover:bg-lane"
      onclick={() => add(one)}>{lengthOf(one)}</button
    >{/each}
</span>
