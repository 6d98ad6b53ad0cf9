<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import type { Schemas } from '$lib/api/client';
  import { mendOf } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  interface Props {
    title: string;
    /** What each reader gets. */
    about: string;
    /** Sends it; the key tells a second press of the same letter. */
    send: (word: string, key: string) => Promise<Schemas['SessionWordsSent']>;
    onsent: (mails: number) => void;
    onclose: () => void;
  }

  let { title, about, send, onsent, onclose }: Props = $props();

  const sending = new Attempt();
  let word = $state('');
  // One key for one letter: pressed again after a lost answer, nobody is mailed twice.
  const key = crypto.randomUUID();

  async function submit(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    let mails = 0;
    const done = await sending.run(async () => ({ mails } = await send(word, key)));
    if (done) onsent(mails);
  }
</script>

<Dialog {title} {onclose}>
  <form novalidate class="space-y-3" onsubmit={(event) => void submit(event)}>
    <p class="text-muted">{about}</p>
    <Field label="Your words" id="words-to-all" mend={mendOf(sending.problem, 'word')}>
      <Textarea id="words-to-all" class="w-full" rows={5} bind:value={word} />
    </Field>
    {#if sending.problem && !sending.problem.errors}<ProblemNote problem={sending.problem} />{/if}
    <div class="flex flex-wrap justify-end gap-3">
      <ActionButton class="min-h-11" onclick={onclose}>Cancel</ActionButton>
      <ActionButton kind="main" type="submit" class="min-h-11" disabled={sending.busy}>Send</ActionButton>
    </div>
  </form>
</Dialog>
