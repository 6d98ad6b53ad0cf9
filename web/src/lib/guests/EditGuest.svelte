<script lang="ts">
  import { beforeNavigate } from '$app/navigation';
  import type { Schemas } from '$lib/api/client';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { GuestEditing } from './GuestEditing.svelte';
  import GuestFields from './GuestFields.svelte';

  interface Props {
    /** Undefined for a new one. */
    saved?: Schemas['GuestDetail'];
    people: { id: string; name: string }[];
    fields: Schemas['GuestFieldView'][];
    onsaved: (guest: Schemas['GuestDetail']) => void;
    oncancel: () => void;
  }

  let { saved, people, fields, onsaved, oncancel }: Props = $props();

  // What is typed stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  const guest = new GuestEditing(saved);

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const done = await guest.save();
    if (done) onsaved(done);
  }

  beforeNavigate(({ cancel, willUnload }) => {
    if (!guest.isTouched) return;
    if (willUnload || !confirm('Discard changes?')) cancel();
  });
</script>

<form
  novalidate
  aria-label={saved ? `Edit ${saved.name}` : 'New guest'}
  class="space-y-4 rounded-2xl border border-line bg-card p-5"
  onsubmit={(event) => void save(event)}
>
  {#if guest.problem}
    {@const other = guest.problem.guest}
    <ProblemNote problem={guest.problem}
      >{#if typeof other === 'string'}<p>
          <a class="underline underline-offset-4" href="/work/guests/{other}">Open that guest</a>
        </p>{/if}</ProblemNote
    >
  {/if}
  <GuestFields {guest} {people} {fields} />
  <div class="flex gap-3">
    <ActionButton kind="main" type="submit" disabled={guest.busy}>Save guest</ActionButton>
    <ActionButton kind="quiet" onclick={oncancel}>Cancel</ActionButton>
  </div>
</form>
