<script lang="ts">
  import { tick, type Snippet } from 'svelte';
  import type { Problem } from '$lib/api/problem';
  import { goTo, isShown } from './mends';

  /**
   * What stands in the way of a press. Of fields it names each as a way to it; a single one that is in view says it.
   */
  let { problem, children }: { problem: Problem; children?: Snippet } = $props();

  const mends = $derived([...new Set(Object.values(problem.errors ?? {}).flat())]);
  let isSaidThere = $state(false);

  $effect(() => {
    const [only] = mends;
    isSaidThere = false;
    if (mends.length === 1 && only !== undefined) void tick().then(() => (isSaidThere = isShown(only)));
  });
</script>

{#if !isSaidThere}
  <div role="alert" class="rounded-lg border-l-4 border-brick bg-brick-tint px-4 py-3 text-brick-text">
    {#if problem.title}<p class="font-semibold">{problem.title}</p>{/if}
    {#if problem.detail}<p>{problem.detail}</p>{/if}
    {#if mends.length > 0}
      <ul>
        {#each mends as words (words)}<li>
            <button type="button" class="min-h-7 text-left underline underline-offset-4" onclick={() => goTo(words)}
              >{words}</button
            >
          </li>{/each}
      </ul>
    {/if}
    {@render children?.()}
  </div>
{/if}
