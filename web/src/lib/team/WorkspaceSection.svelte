<script lang="ts">
  import { Input, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';

  let { me, onchanged }: { me: Schemas['Me']; onchanged: () => void } = $props();

  // What is typed stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  const form = $state({
    name: me.workspace,
    zone: me.workspaceZone,
    kinds: me.kinds.join('\n'),
    mostOpen: me.mostOpen,
    undoMinutes: me.undoMinutes,
  });
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  let told = $state('');

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    told = '';
    await attempt.run(async () => {
      await must(
        api.PUT('/api/workspace', {
          body: {
            ...form,
            mostOpen: Number(form.mostOpen),
            undoMinutes: Number(form.undoMinutes),
            kinds: form.kinds
              .split('\n')
              .map((kind) => kind.trim())
              .filter((kind) => kind !== ''),
          },
        }),
      );
      told = 'Saved.';
      onchanged();
    });
  }
</script>

<section aria-labelledby="workspace" class="mt-6">
  <h2 id="workspace" class="mb-1.5 text-lg">Workspace</h2>
  <form
    novalidate
    class="grid items-start gap-4 rounded-2xl border border-line bg-card p-5 md:grid-cols-2"
    onsubmit={(event) => void save(event)}
  >
    {#if problem}<div class="md:col-span-2"><ProblemNote {problem} /></div>{/if}
    <Field label="Name of the workspace" id="workspace-name" mend={mendOf(problem, 'name')}
      ><Input id="workspace-name" bind:value={form.name} /></Field
    >
    <Field label="Time zone of boards and new pages" id="workspace-zone" mend={mendOf(problem, 'zone')}
      ><ZoneSelect id="workspace-zone" bind:value={form.zone} /></Field
    >
    <Field
      label="Kinds of appointments, one a line"
      id="workspace-kinds"
      hint="Used to tell pages apart in lists."
      mend={mendOf(problem, 'kinds')}
      ><Textarea id="workspace-kinds" rows={3} class="w-full" bind:value={form.kinds} /></Field
    >
    <Field
      label="Most bookings to come of one guest, on all pages"
      id="workspace-most-open"
      mend={mendOf(problem, 'mostOpen')}
      ><Input
        id="workspace-most-open"
        type="number"
        min="1"
        max="1000"
        class="w-28"
        bind:value={form.mostOpen}
      /></Field
    >
    <Field
      label="Minutes that mail of what the team does waits"
      id="workspace-undo"
      hint="As long it can be taken back. 0 for mail that goes out at once."
      mend={mendOf(problem, 'undoMinutes')}
      ><Input id="workspace-undo" type="number" min="0" max="10" class="w-28" bind:value={form.undoMinutes} /></Field
    >
    <span class="flex items-center gap-3"
      ><ActionButton type="submit">Save workspace</ActionButton><span role="status" class="text-muted">{told}</span
      ></span
    >
  </form>
</section>
