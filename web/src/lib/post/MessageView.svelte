<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { stateInWords } from './words';

  interface Props {
    message: Schemas['PostView'];
    zone: string;
    onclose: () => void;
  }

  let { message, zone, onclose }: Props = $props();

  const attempt = new Attempt();
  const mayAgain = $derived(message.row.state !== 'due' || message.row.attempts > 0);

  async function again(): Promise<void> {
    await attempt.run(() => must(api.POST('/api/post/{id}/again', { params: { path: { id: message.row.id } } })));
    await askAnew();
  }
</script>

<article aria-labelledby="message-subject" class="rounded-2xl border border-line bg-card p-5 lg:sticky lg:top-4">
  <h2 id="message-subject" class="text-lg">{message.row.subject}</h2>
  <p class="text-sm text-muted">
    from {message.from} to {message.row.toName}, <span class="wrap-anywhere">{message.row.toEmail}</span>
  </p>
  <p class="text-sm {message.row.state === 'failed' ? 'text-brick' : 'text-muted'}">
    {stateInWords(message.row, zone)}
  </p>
  {#if attempt.problem}<div class="mt-2"><ProblemNote problem={attempt.problem} /></div>{/if}
  <div class="my-4 border-y border-line py-4 wrap-anywhere whitespace-pre-line">{message.text}</div>
  {#if message.files.length > 0}<p class="mb-4 text-sm text-muted">with {message.files.join(', ')}</p>{/if}
  {#if message.calendar}
    <details class="mb-4">
      <summary class="cursor-pointer underline underline-offset-4">The calendar part ({message.calendarMethod})</summary
      >
      <pre class="mt-2 text-xs wrap-anywhere whitespace-pre-wrap">{message.calendar}</pre>
    </details>
  {/if}
  <div class="flex flex-wrap gap-3">
    {#if mayAgain}<ActionButton disabled={attempt.busy} onclick={() => void again()}>Send again</ActionButton>{/if}
    <ActionButton kind="quiet" onclick={onclose}>Close</ActionButton>
  </div>
</article>
