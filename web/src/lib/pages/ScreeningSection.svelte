<script lang="ts">
  import { Input, Select, Textarea } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { acts, newRule, testsOf, valuesOf, type Condition, type Rule } from '$lib/questions/screening';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import type { EditorState } from './EditorState.svelte';
  import { usualDetails } from './form';
  import Section from './Section.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  /** @prop pages Where guests can be sent instead. */
  let { editor, pages }: { editor: EditorState; pages: Schemas['PageName'][] } = $props();

  const MOST = 20;
  const details = $derived(editor.form.details ?? usualDetails());
  const rules = $derived(details.screening);
  const questions = $derived((editor.form.questions ?? []).filter((question) => question.words.trim() !== ''));
  const elsewhere = $derived(pages.filter((page) => page.state === 'published' && page.id !== editor.saved?.id));

  function set(screening: Rule[]): void {
    editor.form.details = { ...details, screening };
  }

  function change(at: number, part: Partial<Rule>): void {
    set(rules.map((rule, i) => (i === at ? { ...rule, ...part } : rule)));
  }

  function changeCondition(at: number, which: number, part: Partial<Condition>): void {
    const rule = rules[at];
    if (rule) change(at, { if: rule.if.map((condition, i) => (i === which ? { ...condition, ...part } : condition)) });
  }

  function askOther(at: number, which: number, key: string): void {
    const question = questions.find((one) => one.key === key);
    if (question)
      changeCondition(at, which, {
        key,
        test: testsOf(question)[0]?.value ?? 'isAnswered',
        value: valuesOf(question)?.[0] ?? '',
      });
  }
</script>

<Section title="Screening">
  {#if rules.length === 0}
    <p class="text-muted">
      {questions.length === 0
        ? 'Add a question above to screen guests by their answers.'
        : 'All guests may book, whatever they answer.'}
    </p>
  {/if}
  {#each rules as rule, at (at)}
    <div
      role="group"
      aria-label="Screening {at + 1}"
      class="rounded-xl p-3 {rule.then === 'flag' ? 'bg-lane text-ink' : 'bg-brick-tint text-ink'}"
    >
      {#each rule.if as condition, which (which)}
        {@const question = questions.find((one) => one.key === condition.key)}
        {@const values = question ? valuesOf(question) : undefined}
        <div class="flex flex-wrap items-center gap-2 py-1">
          {#if which === 0}if{:else}
            <span class="w-20"
              ><Select
                aria-label="How the conditions of screening {at + 1} are joined"
                classes={{ select: 'py-1.5' }}
                placeholder=""
                bind:value={() => (rule.all ? 'all' : 'any'), (joined) => change(at, { all: joined === 'all' })}
                items={[
                  { value: 'all', name: 'and' },
                  { value: 'any', name: 'or' },
                ]}
              /></span
            >
          {/if}
          <span class="min-w-40 flex-1"
            ><Select
              aria-label="Question of condition {which + 1} of screening {at + 1}"
              classes={{ select: 'py-1.5' }}
              placeholder=""
              bind:value={() => condition.key, (key) => askOther(at, which, key)}
              items={questions.map((one) => ({ value: one.key, name: one.words }))}
            /></span
          >
          {#if question}
            <span class="w-36"
              ><Select
                aria-label="Comparison of condition {which + 1} of screening {at + 1}"
                classes={{ select: 'py-1.5' }}
                placeholder=""
                bind:value={() => condition.test, (test) => changeCondition(at, which, { test })}
                items={testsOf(question)}
              /></span
            >
            {#if condition.test !== 'isAnswered' && condition.test !== 'isNotAnswered'}
              <span class="w-40">
                {#if values}
                  <Select
                    aria-label="Answer of condition {which + 1} of screening {at + 1}"
                    classes={{ select: 'py-1.5' }}
                    placeholder=""
                    bind:value={() => condition.value, (value) => changeCondition(at, which, { value })}
                    items={values.map((value) => ({ value, name: value }))}
                  />
                {:else}
                  <Input
                    aria-label="Answer of condition {which + 1} of screening {at + 1}"
                    type={question.kind === 'date' ? 'date' : 'text'}
                    class="py-1.5"
                    bind:value={() => condition.value, (value) => changeCondition(at, which, { value: value ?? '' })}
                  />
                {/if}
              </span>
            {/if}
          {/if}
          {#if rule.if.length > 1}<TextButton
              class="min-h-9 px-1.5"
              aria-label="Remove condition {which + 1} of screening {at + 1}"
              onclick={() => change(at, { if: rule.if.filter((_, i) => i !== which) })}>×</TextButton
            >{/if}
        </div>
        {#each editor.mendsUnder(`details.screening[${at}].if[${which}]`) as mend (mend)}<p
            class="text-sm text-brick-text"
            role="alert"
          >
            {mend}
          </p>{/each}
      {/each}
      <div class="flex flex-wrap items-center gap-2 py-1">
        <TextButton
          class="min-h-9"
          onclick={() =>
            questions[0] &&
            change(at, {
              if: [
                ...rule.if,
                {
                  key: questions[0].key,
                  test: testsOf(questions[0])[0]?.value ?? 'isAnswered',
                  value: valuesOf(questions[0])?.[0] ?? '',
                },
              ],
            })}>another condition</TextButton
        >
      </div>
      <div class="flex flex-wrap items-center gap-2 py-1">
        then <span class="w-64"
          ><Select
            aria-label="What happens by screening {at + 1}"
            classes={{ select: 'py-1.5' }}
            placeholder=""
            bind:value={() => rule.then, (then) => change(at, { then })}
            items={acts}
          /></span
        >
        {#if rule.then === 'goElsewhere'}
          <span class="min-w-48 flex-1">
            <Input
              aria-label="Where screening {at + 1} leads"
              placeholder="a page, or https://"
              list="screening-pages"
              class="py-1.5"
              bind:value={() => rule.address, (address) => change(at, { address: address ?? '' })}
            />
          </span>
        {/if}
      </div>
      <Textarea
        aria-label={rule.then === 'flag'
          ? `What your team reads, screening ${String(at + 1)}`
          : `What the guest reads, screening ${String(at + 1)}`}
        rows={2}
        class="mt-1 w-full"
        placeholder={rule.then === 'flag'
          ? 'what your team reads at the booking'
          : 'what the guest reads, such as “Please ring the yard”'}
        bind:value={() => rule.words, (words) => change(at, { words: words ?? '' })}
      />
      {#each [...editor.mendsUnder(`details.screening[${at}].words`), ...editor.mendsUnder(`details.screening[${at}].address`), ...(editor.mend(`details.screening[${at}].if`) ? [editor.mend(`details.screening[${at}].if`)] : [])] as mend (mend)}<p
          class="text-sm text-brick-text"
          role="alert"
        >
          {mend}
        </p>{/each}
      <TextButton
        class="min-h-9"
        aria-label="Remove screening {at + 1}"
        onclick={() => set(rules.filter((_, i) => i !== at))}>Remove</TextButton
      >
    </div>
  {/each}
  <datalist id="screening-pages"
    >{#each elsewhere as page (page.id)}<option value={page.path}>{page.title}</option>{/each}</datalist
  >
  {#if questions.length > 0 && rules.length < MOST}<ActionButton
      class="py-1.5"
      onclick={() => questions[0] && set([...rules, newRule(questions[0])])}>Add a screening rule</ActionButton
    >{/if}
  {#if editor.mend('details.screening')}<p class="text-sm text-brick" role="alert">
      {editor.mend('details.screening')}
    </p>{/if}
</Section>
