<script lang="ts">
  import { Badge } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';

  let { state }: { state: Schemas['PageState'] } = $props();

  const look = $derived(
    state === 'published'
      ? 'bg-sea-tint text-sea-text border-sea-tint'
      : 'border-dashed border-edge bg-transparent text-muted',
  );
</script>

<Badge class="rounded-full border px-3 py-0.5 text-sm font-semibold {look}">{state}</Badge>
