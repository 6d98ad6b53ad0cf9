<script lang="ts">
  import { putOnClipboard, type Copied } from '$lib/ui/clipboard';
  import { Input, Textarea } from 'flowbite-svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';

  let { id, label, value, lines = 1 }: { id: string; label: string; value: string; lines?: number } = $props();

  let copied = $state<Copied>('not yet');

  async function copy(): Promise<void> {
    copied = await putOnClipboard(value);
  }
</script>

<Field {label} {id} class="mt-4">
  <div class="flex items-start gap-2">
    {#if lines > 1}<Textarea {id} rows={lines} readonly class="w-full font-mono text-sm" {value} />{:else}<Input
        {id}
        readonly
        {value}
      />{/if}
    <ActionButton class="shrink-0" onclick={() => void copy()}>{copied === 'copied' ? 'Copied' : 'Copy'}</ActionButton>
  </div>
  {#if copied === 'refused'}<p class="mt-1 text-sm text-brick" role="alert">
      Your browser doesn’t allow it; select the text and copy it.
    </p>{/if}
</Field>
