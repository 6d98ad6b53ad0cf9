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
    label="What guests read once they have reserved"
    id="after-words"
    hint="Markdown. Nobody sees it before."
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
    label="Address of your own to send them on to"
    id="go-to"
    hint="Empty: they see their booking here. Their private link comes by mail either way."
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
    /> offer them to reserve another time</Choice
  >
  <Choice class="inline-flex min-h-9"
    ><input
      type="checkbox"
      class="rounded border-edge"
      checked={after.provesEmail}
      onchange={() => set({ provesEmail: !after.provesEmail })}
    /> before that, they prove their email by a code that we send</Choice
  >
</Section>
