<script lang="ts">
  import type { Problem } from '$lib/api/problem';
  import ActionButton from './ActionButton.svelte';
  import { inGroups } from './listPlace';
  import ProblemNote from './ProblemNote.svelte';

  interface Props {
    shown: number;
    total: number;
    isWhole: boolean;
    busy: boolean;
    problem: Problem | undefined;
    onmore: () => void;
  }

  let { shown, total, isWhole, busy, problem, onmore }: Props = $props();
  let isNear = $state(false);

  function watch(node: HTMLElement): () => void {
    const observer = new IntersectionObserver(([entry]) => (isNear = entry?.isIntersecting ?? false), {
      rootMargin: '800px 0px',
    });
    observer.observe(node);
    return () => observer.disconnect();
  }

  // What failed is asked for again by a press, not by itself.
  $effect(() => {
    if (isNear && !busy && !isWhole && !problem) onmore();
  });
</script>

<!-- The end of a list that grows as one comes near it. -->
<div {@attach watch} class="mt-3 flex min-h-11 flex-wrap items-center gap-3 text-muted">
  {#if problem}<ProblemNote {problem} />{/if}
  {#if !isWhole}<ActionButton disabled={busy} onclick={onmore}>Show more</ActionButton>{/if}
  <span role="status">{inGroups(shown)} of {inGroups(total)}</span>
</div>
