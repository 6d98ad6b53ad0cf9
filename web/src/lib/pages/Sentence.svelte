<script lang="ts">
  import type { Snippet } from 'svelte';
  import Mend from '$lib/ui/Mend.svelte';

  /** A rule as a sentence with controls in it; what is wrong with it stands beneath. */
  let { mends = [], children }: { mends?: (string | undefined)[]; children: Snippet } = $props();

  const said = $derived([...new Set(mends.filter((mend) => mend !== undefined))]);
</script>

<div>
  <div class="flex flex-wrap items-center gap-x-2.5 gap-y-2 text-muted">{@render children()}</div>
  {#each said as mend (mend)}<Mend words={mend} />{/each}
</div>
