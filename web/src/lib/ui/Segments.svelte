<script lang="ts" generics="T extends string | number">
  interface Props {
    /** What the choice is about, for screen readers. */
    label: string;
    options: readonly { value: T; text: string }[];
    value: T;
    onNight?: boolean;
    onchoose: (value: T) => void;
  }

  let { label, options, value, onNight = false, onchoose }: Props = $props();

  const frame = $derived(onNight ? 'border-night-line' : 'border-line-strong bg-card');
  const chosen = $derived(onNight ? 'bg-on-dark text-on-glow font-bold' : 'bg-chosen text-on-chosen font-bold');
  const other = $derived(onNight ? 'text-on-night hover:bg-night-raised' : 'text-ink hover:bg-lane');
</script>

<div role="group" aria-label={label} class="inline-flex flex-wrap overflow-hidden rounded-lg border {frame}">
  {#each options as option (option.value)}
    <button
      type="button"
      aria-pressed={option.value === value}
      class="min-h-9 px-3 py-1 max-md:min-h-11 {option.value === value ? chosen : other}"
      onclick={() => onchoose(option.value)}>{option.text}</button
    >
  {/each}
</div>
