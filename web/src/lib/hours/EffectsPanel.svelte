<script lang="ts">
  import { effectInWords } from './changes';
  import type { HoursState } from './HoursState.svelte';

  let { editor }: { editor: HoursState } = $props();

  // While something is changed, only what comes or goes; after saving, every page, so that "no change" is said too.
  const shown = $derived(
    editor.isTouched ? editor.effects.filter((effect) => effect.gained > 0 || effect.lost > 0) : (editor.did ?? []),
  );
</script>

<div class="space-y-[14px] lg:sticky lg:top-[76px]">
  <section aria-labelledby="hours-use" class="rounded-2xl border border-line bg-card p-4">
    <h2 id="hours-use" class="text-part">Used by</h2>
    {#if editor.saved && editor.saved.hosts.length > 0}
      <p class="mt-1">The usual hours of {editor.saved.hosts.map((host) => host.name).join(', ')}.</p>
      <p class="mt-1 text-muted">
        {editor.saved.pages.length > 0
          ? `They count on ${editor.saved.pages.map((title) => `“${title}”`).join(', ')}.`
          : 'No page uses them yet.'}
      </p>
    {:else}
      <p class="mt-1 text-muted">
        Nobody uses them yet. Assign them under “Team”, or use them as yours in the list of hours.
      </p>
    {/if}
  </section>
  {#if editor.saved && editor.saved.pages.length > 0}
    <section aria-labelledby="hours-effects" class="rounded-2xl border border-line bg-card p-4" data-test="effects">
      <h2 id="hours-effects" class="text-part">
        {editor.isTouched ? 'What your change would do' : editor.did ? 'What your change did' : 'Openings'}
      </h2>
      <ul aria-live="polite" class="mt-1 space-y-1">
        {#each shown as effect (effect.pageId)}
          <li>{effectInWords(effect)}{effect.state === 'draft' ? ' (a draft)' : ''}</li>
        {:else}
          <li class="text-muted">
            {editor.isTouched ? 'No openings in the next 4 weeks change.' : 'Change something to see its effect.'}
          </li>
        {/each}
      </ul>
    </section>
  {/if}
</div>
