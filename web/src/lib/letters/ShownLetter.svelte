<script lang="ts">
  import type { Schemas } from '$lib/api/client';

  interface Props {
    letter: Schemas['ShownLetter'];
    how: 'text' | 'html';
  }

  let { letter, how }: Props = $props();
</script>

<article class="rounded-lg border border-line bg-paper p-4" aria-label="The letter as it will read">
  <h3 class="text-base">{letter.subject}</h3>
  {#if how === 'text'}
    <p class="mt-2 wrap-anywhere whitespace-pre-line">{letter.text}</p>
  {:else}
    <iframe title="The letter, formatted" sandbox="" srcdoc={letter.html} class="mt-2 h-96 w-full"></iframe>
  {/if}
</article>
