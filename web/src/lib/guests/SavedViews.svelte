<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { everybody, isEverybody, isSameFilter, type GuestFilter } from './filter';

  interface Props {
    views: Schemas['SavedGuestView'][];
    filter: GuestFilter;
    mayChange: boolean;
    onchoose: (filter: GuestFilter) => void;
  }

  let { views, filter, mayChange, onchoose }: Props = $props();

  const attempt = new Attempt();
  let naming = $state(false);
  let name = $state('');
  const here = $derived(views.find((view) => isSameFilter(view.filter, filter)));

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const isDone = await attempt.run(() => must(api.PUT('/api/guests/views', { body: { name, filter } })));
    if (!isDone) return;
    [naming, name] = [false, ''];
    await askAnew();
  }

  async function remove(id: string): Promise<void> {
    await attempt.run(() => must(api.DELETE('/api/guests/views/{id}', { params: { path: { id } } })));
    await askAnew();
  }

  const look = (isHere: boolean): string =>
    `min-h-9 border-b-2 px-1 max-md:min-h-11 ${isHere ? 'border-ink font-bold' : 'border-transparent text-muted hover:border-line-strong'}`;
</script>

<nav aria-label="Saved views" class="flex flex-wrap items-center gap-x-4 gap-y-1">
  <button
    type="button"
    aria-pressed={isEverybody(filter)}
    class={look(isEverybody(filter))}
    onclick={() => onchoose(everybody)}>Everybody</button
  >
  {#each views as view (view.id)}
    <button
      type="button"
      aria-pressed={view === here}
      class={look(view === here)}
      onclick={() => onchoose({ ...everybody, ...view.filter })}>{view.name}</button
    >
  {/each}
  {#if mayChange && !isEverybody(filter)}
    {#if here}
      <TextButton class="min-h-9 text-fine" onclick={() => void remove(here.id)}>Delete view “{here.name}”</TextButton>
    {:else}
      <TextButton class="min-h-9 text-fine" onclick={() => (naming = true)}>Save this view</TextButton>
    {/if}
  {/if}
</nav>

{#if naming}
  <Dialog title="Save this view" onclose={() => (naming = false)}>
    <form novalidate class="space-y-4" onsubmit={(event) => void save(event)}>
      {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
      <Field
        label="Name"
        id="view-name"
        hint="Everybody on your team sees it. A view of the same name is replaced."
        mend={mendOf(attempt.problem, 'name')}><Input id="view-name" bind:value={name} /></Field
      >
      <div class="flex gap-3">
        <ActionButton type="submit" disabled={attempt.busy}>Save view</ActionButton>
        <ActionButton kind="quiet" onclick={() => (naming = false)}>Cancel</ActionButton>
      </div>
    </form>
  </Dialog>
{/if}
