<script lang="ts">
  import { Select, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { MailingGuest } from './mailing';

  interface Props {
    views: Schemas['SavedGuestView'][];
    onadd: (guests: MailingGuest[]) => void;
  }

  let { views, onadd }: Props = $props();

  let text = $state('');
  let told = $state.raw<Schemas['MailingGuests'] | undefined>(undefined);
  const reading = new Attempt();
  const mend = $derived(mendOf(reading.problem, 'text') ?? mendOf(reading.problem, 'file'));

  async function paste(): Promise<void> {
    await reading.run(async () => {
      told = await must(api.POST('/api/mailings/pasted', { body: { text } }));
      onadd(told.guests);
      // What could not be read stays, to be mended.
      if (told.faults.length === 0) text = '';
    });
  }

  async function addView(id: string): Promise<void> {
    const view = views.find((one) => one.id === id);
    if (!view) return;
    await reading.run(async () => {
      told = await must(api.POST('/api/mailings/guests', { body: view.filter }));
      onadd(told.guests);
    });
  }
</script>

<div class="space-y-3">
  {#if reading.problem && !mend}<ProblemNote problem={reading.problem} />{/if}
  <Field
    label="Paste a list"
    id="pasted"
    {mend}
    hint="A name, an email and perhaps a time zone in each line, as a table or a mail program gives them"
    ><Textarea id="pasted" rows={4} class="w-full" bind:value={text} /></Field
  >
  <div class="flex flex-wrap items-center gap-3">
    <ActionButton disabled={reading.busy} onclick={() => void paste()}>Add these</ActionButton>
    {#if views.length > 0}
      <span class="w-60"
        ><Select
          aria-label="Add a saved view"
          placeholder=""
          bind:value={() => '', (id) => void addView(id)}
          items={[
            { value: '', name: 'or a saved view' },
            ...views.map((view) => ({ value: view.id, name: view.name })),
          ]}
        /></span
      >
    {/if}
  </div>
  {#if told}
    <div role="status" class="text-fine">
      {#if told.withoutEmail > 0}<p>{counted(told.withoutEmail, 'guest has', 'guests have')} no email.</p>{/if}
      {#if told.total - told.withoutEmail - told.faults.length > told.guests.length}<p>
          Only the first {told.guests.length} are added: a mailing goes to that many at once.
        </p>{/if}
      {#each told.faults as fault, i (i)}
        <p class="text-brick-text">
          Line {fault.row}{fault.value ? `, “${fault.value}”` : ''}: {fault.mend}
        </p>
      {/each}
    </div>
  {/if}
</div>
