<script lang="ts">
  import TextButton from '$lib/ui/TextButton.svelte';

  /** Warns, before guests can meet it, that they won't know where to come. */
  let { words }: { words: string } = $props();

  function go(): void {
    const field = document.getElementById('place');
    field?.scrollIntoView({ block: 'center' });
    field?.focus({ preventScroll: true });
  }
</script>

<p class="mb-3 flex flex-wrap items-center gap-x-3 rounded-lg border-l-4 border-edge bg-lane px-4 py-2" role="status">
  {words}
  <TextButton class="min-h-8" onclick={go}>Add it</TextButton>
</p>
