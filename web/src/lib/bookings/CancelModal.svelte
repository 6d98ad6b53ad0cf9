<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { say } from '$lib/words/say.svelte';

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

<Dialog title={say('cancel.title', { booking })} {onclose}>
  {#if problem}<div class="mb-3"><ProblemNote {problem} /></div>{/if}
  {#if words}<p class="mb-3 border-l-4 border-edge pl-3 whitespace-pre-line">{words}</p>{/if}
  <p class="mb-3">{say('cancel.what-happens', { reader })}</p>
  <Field label={say('cancel.word', { reader })} id="cancel-word" mend={problem?.errors?.word?.[0]}>
    <Textarea id="cancel-word" class="w-full" rows={3} bind:value={word} />
  </Field>
  <div class="mt-4 flex flex-wrap justify-end gap-3">
    <ActionButton class="min-h-11" onclick={onclose}>{say('cancel.keep')}</ActionButton>
    <ActionButton kind="main" class="min-h-11" disabled={attempt.busy} onclick={() => void submit()}
      >{say('cancel.do')}</ActionButton
    >
  </div>
</Dialog>
