<script lang="ts" generics="F">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { mendOf } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import ActionButton from './ActionButton.svelte';
  import Dialog from './Dialog.svelte';
  import Field from './Field.svelte';
  import ProblemNote from './ProblemNote.svelte';
  import TextButton from './TextButton.svelte';

  interface Props {
    views: { id: string; name: string; filter: F }[];
    filter: F;
    /** What the whole list is called. */
    whole: string;
    isWhole: boolean;
    mayChange: boolean;
    isSame: (one: F, other: F) => boolean;
    save: (name: string) => Promise<unknown>;
    remove: (id: string) => Promise<unknown>;
    /** Of a view, or of the whole list. */
    onchoose: (filter: F | undefined) => void;
  }

  let { views, filter, whole, isWhole, mayChange, isSame, save, remove, onchoose }: Props = $props();

  const attempt = new Attempt();
  let naming = $state(false);
  let name = $state('');
  const here = $derived(views.find((view) => isSame(view.filter, filter)));

  async function saveIt(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const isDone = await attempt.run(async () => void (await save(name)));
    if (!isDone) return;
    [naming, name] = [false, ''];
    await askAnew();
  }

  async function removeIt(id: string): Promise<void> {
    await attempt.run(async () => void (await remove(id)));
    await askAnew();
  }

  const look = (isHere: boolean): string =>
    `min-h-9 border-b-2 px-1 max-md:min-h-11 ${isHere ? 'border-ink font-bold' : 'border-transparent text-muted hover:border-line-strong'}`;
</script>

<nav aria-label="Saved views" class="flex flex-wrap items-center gap-x-4 gap-y-1">
  <button type="button" aria-pressed={isWhole} class={look(isWhole)} onclick={() => onchoose(undefined)}>{whole}</button
  >
  {#each views as view (view.id)}
    <button type="button" aria-pressed={view === here} class={look(view === here)} onclick={() => onchoose(view.filter)}
      >{view.name}</button
    >
  {/each}
  {#if mayChange && !isWhole}
    {#if here}
      <TextButton class="min-h-9 text-fine" onclick={() => void removeIt(here.id)}>Delete view “{here.name}”</TextButton
      >
    {:else}
      <TextButton class="min-h-9 text-fine" onclick={() => (naming = true)}>Save this view</TextButton>
    {/if}
  {/if}
</nav>

{#if naming}
  <Dialog title="Save this view" onclose={() => (naming = false)}>
    <form novalidate class="space-y-4" onsubmit={(event) => void saveIt(event)}>
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
