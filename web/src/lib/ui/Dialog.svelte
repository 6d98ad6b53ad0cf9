<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { say } from '$lib/words/say.svelte';

  interface Props {
    title: string;
    size?: 'sm' | 'md';
    onclose: () => void;
    children: Snippet;
  }

  let { title, size = 'sm', onclose, children }: Props = $props();

  /** Typing and pressing begin in what the dialog asks, not at what closes it. */
  function beginHere(body: HTMLElement): void {
    body.querySelector('input, textarea, select, button')?.setAttribute('data-autofocus', '');
  }
</script>

<!-- The library's own press that closes it speaks English alone, and is too small for a thumb. -->
<Modal open {size} {onclose} dismissable={false} aria-label={title}>
  {#snippet header()}
    <h3>{title}</h3>
    <button
      type="button"
      class="-my-2 -mr-2 grid size-11 shrink-0 place-items-center rounded-lg text-2xl leading-none text-muted hover:bg-lane"
      aria-label={say('dialog.close')}
      onclick={onclose}>×</button
    >
  {/snippet}
  <div class="space-y-4" {@attach beginHere}>{@render children()}</div>
</Modal>
