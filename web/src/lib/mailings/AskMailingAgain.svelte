<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  interface Props {
    row: Schemas['MailingRow'];
    onasked: () => void;
  }

  let { row, onasked }: Props = $props();

  const asking = new Attempt();
  let word = $state('');
  // Pressed again after a lost answer, nobody is asked a second time.
  const key = crypto.randomUUID();
  let asked = $state<number | undefined>(undefined);

  async function ask(): Promise<void> {
    const count = row.silent;
    const isDone = await asking.run(() =>
      must(
        api.POST('/api/mailings/{id}/ask-again', {
          params: { path: { id: row.id }, header: { 'Idempotency-Key': key } },
          body: { word },
        }),
      ),
    );
    if (!isDone) return;
    // Pressed twice, it asks once: the press comes back when the screen is opened anew.
    asked = count;
    onasked();
  }
</script>

{#if asked !== undefined}
  <p role="status">{counted(asked, 'silent guest', 'silent guests')} asked again.</p>
{:else}
  <div class="space-y-3">
    {#if asking.problem}<ProblemNote problem={asking.problem} />{/if}
    <div class="flex flex-wrap items-start gap-3">
      <ActionButton kind="main" disabled={asking.busy || row.timesLeft === 0} onclick={() => void ask()}
        >Ask {counted(row.silent, 'silent guest', 'silent guests')} again</ActionButton
      >
      <details class="min-w-0 flex-1">
        <summary class="inline-flex min-h-9 cursor-pointer items-center text-muted underline underline-offset-4"
          >With a message of your own</summary
        >
        <label class="sr-only" for="ask-word">Message above the times</label>
        <Textarea id="ask-word" rows={3} class="mt-2 w-full" maxlength={2000} bind:value={word} />
      </details>
    </div>
    <p class="text-fine text-muted">
      {row.timesLeft === 0
        ? 'No time is left that could be offered.'
        : 'They get the times that are open now, by the same link. Whoever booked or answered gets no mail.'}
    </p>
  </div>
{/if}
