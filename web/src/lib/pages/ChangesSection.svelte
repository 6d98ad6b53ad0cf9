<script lang="ts">
  import { Checkbox, Input, Textarea } from 'flowbite-svelte';
  import Field from '$lib/ui/Field.svelte';
  import type { EditorState } from './EditorState.svelte';
  import { usualChanges } from './form';
  import { untilExample } from './examples';
  import Example from './Example.svelte';
  import LengthField from './LengthField.svelte';
  import NumberField from './NumberField.svelte';
  import Section from './Section.svelte';
  import Sentence from './Sentence.svelte';

  let { editor }: { editor: EditorState } = $props();

  const changes = $derived(editor.form.changes ?? usualChanges());
  const was = $derived(editor.base?.changes);

  function set(change: Partial<typeof changes>): void {
    editor.form.changes = { ...changes, ...change };
  }
</script>

<Section title="Guests may">
  <Sentence mends={[editor.mend('approvalHours')]}>
    <Checkbox
      checked={editor.form.approvalHours !== null}
      onchange={() => (editor.form.approvalHours = editor.form.approvalHours === null ? 24 : null)}
      class="text-ink">book only after approval</Checkbox
    >
    {#if editor.form.approvalHours !== null}
      that comes within <NumberField
        id="approval-hours"
        label="Hours in which an asked booking is answered"
        bind:value={() => editor.form.approvalHours ?? 24, (hours) => (editor.form.approvalHours = hours)}
        was={editor.base?.approvalHours ?? undefined}
        min={1}
        max={336}
      /> hours
    {/if}
  </Sentence>
  <Sentence mends={[editor.mend('changes.moveUntil')]}>
    <Checkbox checked={changes.mayMove} onchange={() => set({ mayMove: !changes.mayMove })} class="text-ink"
      >move their booking</Checkbox
    >
    {#if changes.mayMove}
      until <LengthField
        id="move-until"
        label="Latest move before the start"
        bind:value={() => changes.moveUntil, (moveUntil) => set({ moveUntil })}
        was={was?.moveUntil}
      /> before the start
    {/if}
  </Sentence>
  <Sentence mends={[editor.mend('changes.cancelUntil')]}>
    <Checkbox checked={changes.mayCancel} onchange={() => set({ mayCancel: !changes.mayCancel })} class="text-ink"
      >cancel it</Checkbox
    >
    {#if changes.mayCancel}
      until <LengthField
        id="cancel-until"
        label="Latest cancellation before the start"
        bind:value={() => changes.cancelUntil, (cancelUntil) => set({ cancelUntil })}
        was={was?.cancelUntil}
      /> before the start
    {/if}
  </Sentence>
  <Example text={editor.worked && changes.mayCancel ? untilExample(changes.cancelUntil, editor.worked) : undefined} />
  <Sentence mends={[editor.mend('changes.mostBrought')]}>
    bring <NumberField
      id="most-brought"
      label="People a guest may bring along"
      bind:value={() => changes.mostBrought, (mostBrought) => set({ mostBrought })}
      was={was?.mostBrought}
      max={20}
    /> people along
  </Sentence>
  <Field label="Text where they cancel" id="cancel-words" mend={editor.mend('changes.cancelWords')}>
    <Textarea
      id="cancel-words"
      rows={2}
      class="w-full"
      bind:value={() => changes.cancelWords, (cancelWords) => set({ cancelWords: cancelWords ?? '' })}
    />
  </Field>
  <Field
    label="Whom to contact when it’s too late"
    id="ask-whom"
    hint="Empty: the hosts are named."
    mend={editor.mend('changes.askWhom')}
  >
    <Input id="ask-whom" bind:value={() => changes.askWhom, (askWhom) => set({ askWhom: askWhom ?? '' })} />
  </Field>
</Section>
