<script lang="ts">
  import { Input, Select, Textarea } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { placeKinds } from '$lib/guest/place';
  import Field from '$lib/ui/Field.svelte';
  import DurationChips from './DurationChips.svelte';
  import type { EditorState } from './EditorState.svelte';
  import Section from './Section.svelte';
  import Sentence from './Sentence.svelte';

  let { editor, desks }: { editor: EditorState; desks: Schemas['DeskView'][] } = $props();

  const edge = (isChanged: boolean): string => (isChanged ? 'border-l-4 border-l-ink' : '');
</script>

<Section title="Appointment">
  <Field label="Title, as guests read it" id="title" mend={editor.mend('title')}>
    <Input id="title" bind:value={() => editor.form.title, (title) => editor.setTitle(title)} class={edge(editor.differs((form) => form.title))} />
  </Field>
  <Field label="Address" id="address" mend={editor.mend('address') ?? editor.mend('deskId') ?? editor.addressMend}>
    <div class="flex items-center gap-2 max-md:flex-wrap">
      <Select aria-label="Desk" class="w-56 shrink-0 max-md:w-64" placeholder="" bind:value={editor.form.deskId} onchange={() => void editor.checkAddress()} items={desks.map((desk) => ({ value: desk.id, name: desk.address }))} />
      <span class="text-muted">/</span>
      <Input id="address" bind:value={() => editor.form.address, (address) => editor.setAddress(address)} onblur={() => void editor.checkAddress()} class={edge(editor.differs((form) => form.address))} />
    </div>
  </Field>
  <Sentence mends={[...editor.mendsUnder('times.durations')]}>
    takes <DurationChips bind:durations={editor.form.times.durations} />
  </Sentence>
  <Sentence mends={[editor.mend('place'), editor.mend('placeKind')]}>
    <Select aria-label="Kind of place" class="w-36" placeholder="" bind:value={editor.form.placeKind} items={placeKinds.map((kind) => ({ value: kind.value, name: kind.text }))} />
    <Input id="place" aria-label="Place" placeholder="where, or how" bind:value={editor.form.place} class="min-w-48 flex-1 {edge(editor.differs((form) => form.place))}" />
  </Sentence>
  <Field label="Description" id="description" mend={editor.mend('description')}>
    <Textarea id="description" rows={3} class="w-full" bind:value={editor.form.description} />
  </Field>
</Section>
