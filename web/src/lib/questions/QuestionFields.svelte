<script lang="ts">
  import { Input, Textarea } from 'flowbite-svelte';
  import { mendOf, type Problem } from '$lib/api/problem';
  import Field from '$lib/ui/Field.svelte';
  import { say } from '$lib/words/say.svelte';
  import { toggled, type Question } from './kinds';
  import { wordsOf } from './words';
  import Choice from '$lib/ui/Choice.svelte';

  interface Props {
    questions: Question[];
    /** By the question's key. */
    answers: Record<string, string>;
    problem: Problem | undefined;
  }

  let { questions, answers = $bindable(), problem }: Props = $props();

  const types: Partial<Record<Question['kind'], 'date' | 'email' | 'url' | 'tel'>> = {
    date: 'date',
    email: 'email',
    web: 'url',
    phone: 'tel',
  };

  const idOf = (question: Question): string => `question-${question.key}`;
  const mend = (question: Question): string | undefined => mendOf(problem, `answers.${question.key}`);
  const labelOf = (question: Question): string =>
    question.isNeeded ? wordsOf(question) : say('question.optional', { question: wordsOf(question) });
  const isChosen = (question: Question, option: string): boolean =>
    (answers[question.key] ?? '').split('\n').includes(option);

  function set(question: Question, answer: string): void {
    answers = { ...answers, [question.key]: answer };
  }
</script>

{#snippet group(question: Question)}
  {@const fault = mend(question)}
  <fieldset class="min-w-0 md:col-span-2" aria-describedby={fault ? `${idOf(question)}-mend` : undefined}>
    <legend class="mb-1">{labelOf(question)}</legend>
    {#if question.hint}<p class="mb-1 text-sm text-muted">{question.hint}</p>{/if}
    <div class="flex flex-wrap gap-x-5 gap-y-1">
      {#if question.kind === 'someOf'}
        {#each question.options as option (option)}
          <Choice class="flex min-h-11"
            ><input
              type="checkbox"
              class="size-5 accent-night"
              checked={isChosen(question, option)}
              onchange={() => set(question, toggled(answers[question.key] ?? '', option))}
            />{option}</Choice
          >
        {/each}
      {:else if question.kind === 'consent'}
        <Choice class="flex min-h-11"
          ><input
            type="checkbox"
            class="size-5 accent-night"
            checked={answers[question.key] === 'yes'}
            onchange={(event) => set(question, event.currentTarget.checked ? 'yes' : '')}
          />{say('question.agree')}</Choice
        >
        {#if question.address}<a
            class="flex min-h-11 items-center underline underline-offset-4"
            href={question.address}
            target="_blank"
            rel="noopener noreferrer">{say('question.read')}</a
          >{/if}
      {:else}
        {#each question.kind === 'yesNo' ? ['yes', 'no'] : question.options as option (option)}
          <Choice class="flex min-h-11"
            ><input
              type="radio"
              class="size-5 accent-night"
              name={idOf(question)}
              value={option}
              checked={answers[question.key] === option}
              onchange={() => set(question, option)}
            />{question.kind === 'yesNo' ? say(option === 'yes' ? 'answer.yes' : 'answer.no') : option}</Choice
          >
        {/each}
      {/if}
    </div>
    {#if fault}<p id="{idOf(question)}-mend" class="mt-1 text-sm text-brick" role="alert">{fault}</p>{/if}
  </fieldset>
{/snippet}

{#each questions as question (question.key)}
  {#if question.kind === 'oneOf' || question.kind === 'someOf' || question.kind === 'yesNo' || question.kind === 'consent'}
    {@render group(question)}
  {:else}
    <Field
      label={labelOf(question)}
      id={idOf(question)}
      hint={question.hint || (question.kind === 'others' ? say('question.emails') : '')}
      mend={mend(question)}
      class={question.kind === 'long' ? 'md:col-span-2' : ''}
    >
      {#if question.kind === 'long' || question.kind === 'others'}
        <Textarea
          id={idOf(question)}
          rows={3}
          class="w-full"
          aria-invalid={mend(question) !== undefined}
          bind:value={() => answers[question.key] ?? '', (answer) => set(question, answer ?? '')}
        />
      {:else}
        <Input
          id={idOf(question)}
          type={types[question.kind] ?? 'text'}
          inputmode={question.kind === 'number' ? 'decimal' : undefined}
          aria-invalid={mend(question) !== undefined}
          class="min-h-10 max-md:min-h-11"
          bind:value={() => answers[question.key] ?? '', (answer) => set(question, answer ?? '')}
        />
      {/if}
    </Field>
  {/if}
{/each}
