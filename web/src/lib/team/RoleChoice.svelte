<script lang="ts">
  import Mend from '$lib/ui/Mend.svelte';
  import { Checkbox } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';

  let { roles = $bindable(), mend }: { roles: Schemas['RolesForm']; mend?: string | undefined } = $props();
</script>

<fieldset class="space-y-2">
  <legend class="mb-1">Roles</legend>
  <Checkbox bind:checked={roles.isOwner}>owner: decides about people and the workspace</Checkbox>
  <Checkbox bind:checked={roles.isCoordinator}
    >coordinator: sets up pages, for themselves and for hosts who let them</Checkbox
  >
  <Checkbox bind:checked={roles.isHost}>host: their own time can be booked</Checkbox>
  {#if mend}<Mend words={mend} class="" />{/if}
</fieldset>
