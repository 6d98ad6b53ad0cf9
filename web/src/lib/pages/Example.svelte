<script lang="ts">
  /** What a rule comes to for this page, such as a next start; nothing where there is none to be had. */
  let { text }: { text: string | undefined } = $props();
</script>

{#if text}<p class="!mt-1 border-l-2 border-line-strong pl-2 text-sm text-muted">{text}</p>{/if}
