<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Problem } from '$lib/api/problem';

  let { problem, children }: { problem: Problem; children?: Snippet } = $props();
</script>

<div role="alert" class="rounded-lg border-l-4 border-brick bg-brick-tint px-4 py-3 text-brick-text">
  <p class="font-semibold">{problem.title}</p>
  {#if problem.detail}<p>{problem.detail}</p>{/if}
  {@render children?.()}
</div>
