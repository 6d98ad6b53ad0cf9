<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';

  interface Props {
    pageId: string;
    post: Schemas['PagePost'];
    mail: Schemas['PreviewedMail'];
  }

  let { pageId, post, mail }: Props = $props();

  let shown = $state.raw<Schemas['PreviewAnswer'] | undefined>(undefined);
  let of = $state('');
  const attempt = new Attempt();
  const faults = $derived(Object.values(attempt.problem?.errors ?? {}).flat());
  // What was shown is of words that have changed since.
  const isOld = $derived(of !== JSON.stringify({ post, mail }));

  async function show(): Promise<void> {
    const asked = JSON.stringify({ post, mail });
    const done = await attempt.run(async () => {
      shown = await must(
        api.POST('/api/pages/{id}/post-preview', { params: { path: { id: pageId } }, body: { post, mail } }),
      );
    });
    of = done ? asked : '';
  }
</script>

<div>
  <ActionButton disabled={attempt.busy} onclick={() => void show()}>Preview</ActionButton>
  {#if attempt.problem}
    <p class="mt-2 text-sm text-brick" role="alert">{faults.length > 0 ? faults.join(' ') : attempt.problem.title}</p>
  {:else if shown && !isOld}
    <article class="mt-3 rounded-lg border border-line bg-paper p-4" aria-label="Preview">
      <p class="text-sm text-muted">
        {shown.isMadeUp
          ? `With a made-up guest, ${shown.guestName}: nobody has booked this page so far.`
          : `With the latest booking, of ${shown.guestName}.`}
      </p>
      <h3 class="mt-2 text-base">{shown.subject}</h3>
      <p class="mt-2 wrap-anywhere whitespace-pre-line">{shown.text}</p>
      {#if shown.eventTitle}
        <h3 class="mt-4 border-t border-line pt-3 text-base">In the calendar: {shown.eventTitle}</h3>
        <p class="mt-1 wrap-anywhere whitespace-pre-line">{shown.eventText}</p>
      {/if}
    </article>
  {/if}
</div>
