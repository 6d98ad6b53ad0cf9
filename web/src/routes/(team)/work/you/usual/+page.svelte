<script lang="ts">
  import { askAnew } from '$lib/live/anew';
  import Segments from '$lib/ui/Segments.svelte';
  import UsualForm from '$lib/usual/UsualForm.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  let whose = $state<'person' | 'workspace'>('person');
</script>

<svelte:head><title>Defaults – Loose Lantern</title></svelte:head>

<p class="mb-3">
  New pages and links start from these. What you leave empty follows the workspace; what the workspace leaves empty
  follows the product.
</p>
{#if data.me.isOwner}
  <div class="mb-3">
    <Segments
      label="Whose defaults"
      options={[
        { value: 'person', text: 'Mine' },
        { value: 'workspace', text: 'The workspace’s' },
      ] as const}
      value={whose}
      onchoose={(value) => (whose = value)}
    />
  </div>
{/if}
{#key whose}
  <UsualForm usual={data.usual} {whose} onsaved={() => void askAnew()} />
{/key}
