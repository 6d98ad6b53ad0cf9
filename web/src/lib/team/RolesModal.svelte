<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import RoleChoice from './RoleChoice.svelte';

  let { person, ondone, onclose }: { person: Schemas['PersonView']; ondone: () => void; onclose: () => void } =
    $props();

  // The form is made once for the person.
  // svelte-ignore state_referenced_locally
  let roles = $state({ isOwner: person.isOwner, isCoordinator: person.isCoordinator, isHost: person.hostId !== null });
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  async function save(): Promise<void> {
    await attempt.run(async () => {
      await must(api.PUT('/api/people/{id}/roles', { params: { path: { id: person.id } }, body: roles }));
      ondone();
    });
  }
</script>

<Dialog title="Roles of {person.name}" {onclose}>
  {#if problem}<div class="mb-3"><ProblemNote {problem} /></div>{/if}
  <RoleChoice bind:roles mend={mendOf(problem, 'isHost')} />
  <div class="mt-4 flex justify-end gap-3">
    <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
    <ActionButton kind="main" onclick={() => void save()}>Save roles</ActionButton>
  </div>
</Dialog>
