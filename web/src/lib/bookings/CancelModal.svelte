<script lang="ts">
  import { Modal, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  interface Props {
    /** What is cancelled, in words. */
    booking: string;
    /** What the page says on cancelling. */
    words?: string;
    /** Who reads the word. */
    reader: string;
    cancel: (word: string) => Promise<unknown>;
    oncancelled: () => void;
    onclose: () => void;
  }

  let { booking, words = '', reader, cancel, oncancelled, onclose }: Props = $props();

  let word = $state('');
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  async function submit(): Promise<void> {
    if (await attempt.run(() => cancel(word.trim()))) oncancelled();
  }
</script>

<Modal open title="Cancel {booking}?" size="sm" {onclose}>
  {#if problem && !problem.errors}<div class="mb-3"><ProblemNote {problem} /></div>{/if}
  {#if words}<p class="mb-3 border-l-4 border-edge pl-3 whitespace-pre-line">{words}</p>{/if}
  <p class="mb-3">The time is free again at once, and a mail tells {reader}.</p>
  <Field label="A word why, for {reader} (may stay empty)" id="cancel-word" mend={problem?.errors?.word?.[0]}>
    <Textarea id="cancel-word" class="w-full" rows={3} bind:value={word} />
  </Field>
  <div class="mt-4 flex flex-wrap justify-end gap-3">
    <ActionButton class="min-h-11" onclick={onclose}>Keep it</ActionButton>
    <ActionButton kind="main" class="min-h-11" disabled={attempt.busy} onclick={() => void submit()}>Cancel the booking</ActionButton>
  </div>
</Modal>
