<script lang="ts">
  import Mend from '$lib/ui/Mend.svelte';
  import { Checkbox, Input, Select, Textarea } from 'flowbite-svelte';
  import { moved } from '$lib/lists';
  import { hasOptions, newQuestion, questionKinds, type Question } from '$lib/questions/kinds';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import type { EditorState } from './EditorState.svelte';
  import Section from './Section.svelte';
  import Sentence from './Sentence.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { editor, fields }: { editor: EditorState; fields: { id: string; name: string }[] } = $props();

  const MOST = 25;
  // By phone the form asks for the number that hosts call.
  const asksNumber = $derived(editor.form.placeKind === 'phone' && (editor.form.details?.place.hostsRing ?? true));
  const questions = $derived(editor.form.questions ?? []);

  /** What is agreed to, and who else comes, is about one appointment. */
  const mayFill = (kind: Question['kind']): boolean => kind !== 'consent' && kind !== 'others';

  function set(next: Question[]): void {
    editor.form.questions = next;
  }

  function change(at: number, part: Partial<Question>): void {
    set(questions.map((question, i) => (i === at ? { ...question, ...part } : question)));
  }
</script>

<Section title="Questions">
  {#if asksNumber}
    <p class="text-muted">Guests are asked for their name, email and phone number, since we call them.</p>
  {:else if questions.length === 0}
    <p class="text-muted">Guests are asked for their name and email only.</p>
  {/if}
  {#each questions as question, at (question.key)}
    <div class="rounded-xl border border-line p-3">
      <Sentence mends={editor.mendsUnder(`questions[${at}]`)}>
        <span class="min-w-56 flex-1"
          ><Input
            aria-label="Question {at + 1}"
            placeholder="your question"
            class="py-1.5"
            bind:value={() => question.words, (words) => change(at, { words: words ?? '' })}
          /></span
        >
        <span class="w-44"
          ><Select
            aria-label="Answer to question {at + 1}"
            placeholder=""
            classes={{ select: 'py-1.5' }}
            bind:value={() => question.kind, (kind) => change(at, { kind })}
            items={questionKinds}
          /></span
        >
        <Checkbox
          aria-label="Question {at + 1} is needed"
          checked={question.isNeeded}
          onchange={() => change(at, { isNeeded: !question.isNeeded })}
          class="text-ink">needed</Checkbox
        >
      </Sentence>
      <div class="mt-2 grid items-start gap-2 md:grid-cols-2">
        <Input
          aria-label="Hint to question {at + 1}"
          placeholder="hint (optional)"
          class="py-1.5"
          bind:value={() => question.hint, (hint) => change(at, { hint: hint ?? '' })}
        />
        {#if hasOptions(question.kind)}
          <Textarea
            aria-label="Answers offered to question {at + 1}, one a line"
            rows={3}
            class="w-full"
            placeholder="one answer a line"
            bind:value={() => question.options.join('\n'), (text) => change(at, { options: (text ?? '').split('\n') })}
          />
        {:else if question.kind === 'consent'}
          <Input
            aria-label="Where to read what question {at + 1} is about"
            placeholder="https://, where it can be read"
            class="py-1.5"
            bind:value={() => question.address, (address) => change(at, { address: address ?? '' })}
          />
        {/if}
      </div>
      {#if fields.length > 0 && mayFill(question.kind)}
        <label class="mt-2 flex flex-wrap items-center gap-2 text-muted"
          >the answer fills in the guest’s
          <span class="w-52"
            ><Select
              aria-label="What the answer to question {at + 1} fills in"
              placeholder=""
              classes={{ select: 'py-1.5' }}
              bind:value={() => question.fills ?? '', (id) => change(at, { fills: id === '' ? null : id })}
              items={[
                { value: '', name: 'nothing' },
                ...fields.map((field) => ({ value: field.id, name: field.name })),
              ]}
            /></span
          ></label
        >
      {/if}
      <div class="mt-1 flex flex-wrap gap-x-4">
        {#if at > 0}<TextButton
            class="min-h-9"
            aria-label="Move question {at + 1} up"
            onclick={() => set(moved(questions, at, -1))}>Up</TextButton
          >{/if}
        {#if at < questions.length - 1}<TextButton
            class="min-h-9"
            aria-label="Move question {at + 1} down"
            onclick={() => set(moved(questions, at, 1))}>Down</TextButton
          >{/if}
        <TextButton
          class="min-h-9"
          aria-label="Remove question {at + 1}"
          onclick={() => set(questions.filter((_, i) => i !== at))}>Remove</TextButton
        >
      </div>
    </div>
  {/each}
  {#if questions.length < MOST}<ActionButton
      id="questions"
      class="py-1.5"
      onclick={() => set([...questions, newQuestion(questions)])}>Add a question</ActionButton
    >{/if}
  {#each editor
    .mendsUnder('questions')
    .filter((mend) => !questions.some((_, at) => editor.mendsUnder(`questions[${at}]`).includes(mend))) as mend (mend)}
    <Mend words={mend} class="" />
  {/each}
</Section>
