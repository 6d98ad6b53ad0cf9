<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';

  /**
   * Asks before what is typed and not saved would be lost: in a dialog of ours, or the browser's own where the whole
   * page goes.
   */
  let { isTouched }: { isTouched: boolean } = $props();

  let leavingTo = $state.raw<URL | undefined>(undefined);
  let mayLeave = false;

  beforeNavigate((navigation) => {
    if (!isTouched || mayLeave) return;
    navigation.cancel();
    if (!navigation.willUnload) leavingTo = navigation.to?.url ?? undefined;
  });

  async function leave(): Promise<void> {
    mayLeave = true;
    if (leavingTo) await goto(leavingTo);
  }
</script>

{#if leavingTo}
  <Dialog title="Discard changes?" onclose={() => (leavingTo = undefined)}>
    <p>Your changes here aren’t saved.</p>
    <div class="mt-4 flex flex-wrap justify-end gap-3">
      <ActionButton onclick={() => void leave()}>Discard</ActionButton>
      <ActionButton kind="main" onclick={() => (leavingTo = undefined)}>Keep editing</ActionButton>
    </div>
  </Dialog>
{/if}
