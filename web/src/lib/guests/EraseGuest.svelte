<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { dateIn, dayMonth, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { whatGoes } from './erasing';

  interface Props {
    id: string;
    look: Schemas['ErasingView'];
    zone: string;
    onerased: () => void;
    onclose: () => void;
  }

  let { id, look, zone, onerased, onclose }: Props = $props();

  const attempt = new Attempt();
  let isSure = $state(false);
  const isOpen = $derived(look.toCome.length + look.usable.length > 0);

  async function erase(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const isDone = await attempt.run(() =>
      must(api.POST('/api/guests/{id}/erase', { params: { path: { id } }, body: { version: look.version } })),
    );
    if (isDone) onerased();
  }
</script>

<Dialog title="Erase {look.name}?" size="md" {onclose}>
  <form novalidate class="space-y-4" onsubmit={(event) => void erase(event)}>
    {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
    {#if isOpen}
      <p>Cancel or revoke these first:</p>
      <ul class="space-y-1">
        {#each look.toCome as one (one.id)}
          <li>
            <a class="inline-flex min-h-6 items-center underline underline-offset-4" href="/work/bookings/{one.id}"
              >{one.title}{one.start ? `, ${dayMonth(dateIn(one.start, zone))}, ${timeOf(one.start, zone)}` : ''}</a
            >
          </li>
        {/each}
        {#each look.usable as one (one.id)}
          <li>
            <a class="inline-flex min-h-6 items-center underline underline-offset-4" href="/work/links/{one.id}"
              >Link “{one.title}”</a
            >
          </li>
        {/each}
      </ul>
      <ActionButton onclick={onclose}>Close</ActionButton>
    {:else}
      <ul class="list-disc space-y-1 pl-5">
        {#each whatGoes(look) as line (line)}<li>{line}</li>{/each}
      </ul>
      <Checkbox bind:checked={isSure}>I understand that this can’t be undone</Checkbox>
      <div class="flex gap-3">
        <ActionButton kind="main" type="submit" disabled={!isSure || attempt.busy}>Erase guest</ActionButton>
        <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
      </div>
    {/if}
  </form>
</Dialog>
