<script lang="ts">
  import { putOnClipboard, type Copied } from '$lib/ui/clipboard';
  import TextButton from '$lib/ui/TextButton.svelte';

  /** Puts a value on the clipboard by one press, and says whether it is there. */
  let { words, value }: { words: string; value: string } = $props();

  let copied = $state<Copied>('not yet');

  async function copy(): Promise<void> {
    copied = await putOnClipboard(value);
  }
</script>

<TextButton class="min-h-8" onclick={() => void copy()}>{copied === 'copied' ? 'Copied' : words}</TextButton>
{#if copied === 'refused'}<span class="block wrap-anywhere">{value}</span>{/if}
