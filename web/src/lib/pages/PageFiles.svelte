<script lang="ts">
  import { onMount } from 'svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { faultOf, must } from '$lib/api/problem';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { pageId }: { pageId: string } = $props();

  let files = $state.raw<Schemas['PageFileView'][]>([]);
  const attempt = new Attempt();
  const path = $derived({ id: pageId });

  async function load(): Promise<void> {
    files = await must(api.GET('/api/pages/{id}/files', { params: { path } }));
  }

  onMount(() => void attempt.run(load));

  async function add(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    const input = event.currentTarget;
    const file = input.files?.[0];
    if (!file) return;
    const form = new FormData();
    form.append('file', file);
    await attempt.run(async () => {
      await must(
        api.POST('/api/pages/{id}/files', {
          params: { path },
          body: form as never,
          bodySerializer: (body) => body as never,
        }),
      );
      await load();
    });
    input.value = '';
  }

  async function drop(file: Schemas['PageFileView']): Promise<void> {
    await attempt.run(async () => {
      await must(api.DELETE('/api/pages/{id}/files/{fileId}', { params: { path: { id: pageId, fileId: file.id } } }));
      await load();
    });
  }
</script>

<div>
  <label for="page-file" class="mb-1 block">Files to include (saved at once)</label>
  <ul>
    {#each files as file (file.id)}
      <li>
        {file.name} <span class="text-sm text-muted">{Math.max(1, Math.round(file.size / 1024))} KB</span>
        <TextButton
          class="min-h-9 px-1.5"
          aria-label="Remove {file.name}"
          disabled={attempt.busy}
          onclick={() => void drop(file)}>×</TextButton
        >
      </li>
    {/each}
  </ul>
  <input
    id="page-file"
    type="file"
    disabled={attempt.busy}
    onchange={(event) => void add(event)}
    class="block text-sm"
  />
  {#if attempt.problem}<p class="mt-1 text-sm text-brick" role="alert">
      {faultOf(attempt.problem, 'file')}
    </p>{/if}
</div>
