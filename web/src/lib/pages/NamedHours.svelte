<script lang="ts">
  import { Select } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, type Schemas } from '$lib/api/client';
  import type { EditorState } from './EditorState.svelte';
  import { must } from '$lib/api/problem';
  import Choice from '$lib/ui/Choice.svelte';

  let { editor }: { editor: EditorState } = $props();

  const times = $derived(editor.form.times);

  let sets = $state.raw<Schemas['HoursView'][]>([]);
  const followed = $derived(sets.find((set) => set.id === times.hoursOf));

  onMount(() => {
    void must(api.GET('/api/hours')).then(
      (found) => (sets = found),
      () => undefined,
    );
  });

  function choose(id: string): void {
    const set = sets.find((one) => one.id === id);
    times.hoursOf = set?.id ?? null;
    if (set) times.hours = structuredClone(set.document);
  }
</script>

{#if sets.length > 0}
  <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
    <Select
      aria-label="Hours of the page"
      class="w-64"
      classes={{ select: 'py-1.5' }}
      placeholder=""
      value={times.hoursOf ?? ''}
      onchange={(event: Event & { currentTarget: HTMLSelectElement }) => choose(event.currentTarget.value)}
      items={[{ value: '', name: 'typed here' }, ...sets.map((set) => ({ value: set.id, name: set.name }))]}
    />
    {#if followed}
      <Choice class="inline-flex min-h-9"
        ><input type="checkbox" class="rounded border-edge" checked onchange={() => (times.hoursOf = null)} /> its changes
        count here too</Choice
      >
    {/if}
  </div>
{/if}
