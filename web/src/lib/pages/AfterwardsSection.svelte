<script lang="ts">
  import { Input, Textarea } from 'flowbite-svelte';
  import Field from '$lib/ui/Field.svelte';
  import type { EditorState } from './EditorState.svelte';
  import { usualDetails } from './form';
  import Section from './Section.svelte';
  import Choice from '$lib/ui/Choice.svelte';

  let { editor }: { editor: EditorState } = $props();

  const details = $derived(editor.form.details ?? usualDetails());
  const after = $derived(details.after);

  function set(change: Partial<typeof after>): void {
    editor.form.details = { ...details, after: { ...after, ...change } };
  }
</script>

<Section title="Afterwards">
  <Field
    label="Message after booking"
    id="after-words"
    hint="Markdown; shown only after booking"
    mend={editor.mend('details.after.words')}
  >
    <Textarea
      id="after-words"
      rows={2}
      class="w-full"
      bind:value={() => after.words, (words) => set({ words: words ?? '' })}
    />
  </Field>
  <Field
    label="Web page to send them to"
    id="go-to"
    hint="Empty: they see their booking here. They get their private link by mail either way."
    mend={editor.mend('details.after.goTo')}
  >
    <Input id="go-to" placeholder="https://" bind:value={() => after.goTo, (goTo) => set({ goTo: goTo ?? '' })} />
  </Field>
  <Choice class="inline-flex min-h-9"
    ><input
      type="checkbox"
      class="rounded border-edge"
      checked={after.offersAnother}
      onchange={() => set({ offersAnother: !after.offersAnother })}
    /> offer another booking</Choice
  >
  <Choice class="inline-flex min-h-9"
    ><input
      type="checkbox"
      class="rounded border-edge"
      checked={after.provesEmail}
      onchange={() => set({ provesEmail: !after.provesEmail })}
    /> before booking, guests confirm their email with a code</Choice
  >
</Section>
