<script lang="ts">
  import { api, type Schemas } from '$lib/api/client';
  import { checkUp, publicWords } from './checkup';
  import type { EditorState } from './EditorState.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  let {
    editor,
    calendars,
    desks,
  }: { editor: EditorState; calendars: Schemas['CalendarView'][]; desks: Schemas['DeskView'][] } = $props();

  let guestNames = $state.raw<string[]>([]);
  // Only what is known to be missing is missed; a new page can be given one once it is kept.
  const hasPicture = $derived(
    editor.picture !== null || desks.some((desk) => desk.id === editor.form.deskId && desk.banner !== null),
  );
  const words = $derived(publicWords(editor.form));
  const points = $derived(checkUp(editor.form, editor.supply, calendars, guestNames, hasPicture));

  $effect(() => {
    const asked = words;
    const pause = setTimeout(() => {
      void api.POST('/api/pages/guest-names', { body: { words: asked } }).then((answer) => {
        if (asked === words) guestNames = answer.data ?? [];
      });
    }, 800);
    return () => clearTimeout(pause);
  });

  function go(at: string): void {
    const control = document.getElementById(at);
    control?.scrollIntoView({ block: 'center' });
    control?.focus({ preventScroll: true });
  }
</script>

<section aria-labelledby="check-up" class="rounded-2xl border border-line bg-card p-4">
  <h2 id="check-up" class="text-part">Check-up</h2>
  {#if points.length === 0}
    <p class="mt-1 text-muted">Nothing to improve.</p>
  {:else}
    <ul class="mt-1">
      {#each points as point, i (i)}
        <li class="flex items-center gap-3 border-t border-line py-1.5 first:border-t-0">
          <span class="min-w-0 flex-1">{point.words}</span>
          {#if point.at.startsWith('/')}
            <a class="min-h-7 text-sm underline underline-offset-4" href={point.at}>view</a>
          {:else}
            <TextButton class="min-h-7 text-sm" aria-label="Fix: {point.words}" onclick={() => go(point.at)}
              >fix</TextButton
            >
          {/if}
        </li>
      {/each}
    </ul>
  {/if}
</section>
