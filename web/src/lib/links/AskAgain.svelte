<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  interface Props {
    row: Schemas['LinkRow'];
    onasked: () => void;
    onclose: () => void;
  }

  let { row, onasked, onclose }: Props = $props();

  const asking = new Attempt();
  let word = $state('');
  // Pressed again after a lost answer, it is sent no second time.
  const key = crypto.randomUUID();

  async function ask(): Promise<void> {
    if (
      await asking.run(() =>
        must(
          api.POST('/api/links/{id}/ask-again', {
            params: { path: { id: row.id }, header: { 'Idempotency-Key': key } },
            body: { word },
          }),
        ),
      )
    )
      onasked();
  }
</script>

<Dialog title="Ask {row.guests.join(', ')} again" {onclose}>
  <label class="mb-1 block" for="ask-word">Message above the times (optional)</label>
  <Textarea id="ask-word" rows={3} class="w-full" maxlength={2000} bind:value={word} />
  {#if asking.problem}<div class="mt-3">
      <ProblemNote problem={asking.problem} />
    </div>{/if}
  <div class="mt-4 flex justify-end gap-3">
    <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
    <ActionButton kind="main" disabled={asking.busy} onclick={() => void ask()}>Send the times again</ActionButton>
  </div>
</Dialog>
