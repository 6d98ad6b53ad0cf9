<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { testsOf, valuesOf, type Condition } from '$lib/questions/screening';
  import TextButton from '$lib/ui/TextButton.svelte';
  import type { EditorState } from './EditorState.svelte';
  import { usualDetails } from './form';

  interface Props {
    editor: EditorState;
    hosts: Schemas['HostView'][];
    /** Whether rules can be added; those there are always show. */
    isShown: boolean;
  }

  let { editor, hosts, isShown }: Props = $props();

  const MOST = 50;
  const details = $derived(editor.form.details ?? usualDetails());
  const rules = $derived(details.keepers ?? []);
  const questions = $derived((editor.form.questions ?? []).filter((question) => question.words.trim() !== ''));
  const people = $derived(hosts.filter((host) => host.kind === 'person'));

  function set(keepers: Schemas['KeeperByAnswer'][]): void {
    editor.form.details = { ...details, keepers };
  }

  function change(at: number, part: Partial<Schemas['KeeperByAnswer']>): void {
    set(rules.map((rule, i) => (i === at ? { ...rule, ...part } : rule)));
  }

  function changeIf(at: number, part: Partial<Condition>): void {
    const rule = rules[at];
    if (rule) change(at, { if: { ...rule.if, ...part } });
  }

  function conditionOn(key: string): Condition {
    const question = questions.find((one) => one.key === key);
    return {
      key,
      test: (question && testsOf(question)[0]?.value) ?? 'isAnswered',
      value: (question && valuesOf(question)?.[0]) ?? '',
    };
  }

  function add(): void {
    const [question] = questions;
    const [host] = people;
    if (question && host) set([...rules, { if: conditionOn(question.key), host: host.id }]);
  }
</script>

{#each rules as rule, at (at)}
  {@const question = questions.find((one) => one.key === rule.if.key)}
  {@const values = question ? valuesOf(question) : undefined}
  <div
    role="group"
    aria-label="Keeper by answer {at + 1}"
    class="flex flex-wrap items-center gap-2 rounded-xl bg-lane p-3"
  >
    if
    <span class="min-w-40 flex-1"
      ><Select
        aria-label="Question of keeper {at + 1}"
        classes={{ select: 'py-1.5' }}
        placeholder=""
        bind:value={() => rule.if.key, (key) => change(at, { if: conditionOn(key) })}
        items={questions.map((one) => ({ value: one.key, name: one.words }))}
      /></span
    >
    {#if question}
      <span class="w-32"
        ><Select
          aria-label="Comparison of keeper {at + 1}"
          classes={{ select: 'py-1.5' }}
          placeholder=""
          bind:value={() => rule.if.test, (test) => changeIf(at, { test })}
          items={testsOf(question)}
        /></span
      >
      {#if rule.if.test !== 'isAnswered' && rule.if.test !== 'isNotAnswered'}
        <span class="w-36">
          {#if values}
            <Select
              aria-label="Answer of keeper {at + 1}"
              classes={{ select: 'py-1.5' }}
              placeholder=""
              bind:value={() => rule.if.value, (value) => changeIf(at, { value })}
              items={values.map((value) => ({ value, name: value }))}
            />
          {:else}
            <Input
              aria-label="Answer of keeper {at + 1}"
              type={question.kind === 'date' ? 'date' : 'text'}
              class="py-1.5"
              bind:value={() => rule.if.value, (value) => changeIf(at, { value: value ?? '' })}
            />
          {/if}
        </span>
      {/if}
    {/if}
    the guest’s keeper is
    <span class="w-44"
      ><Select
        aria-label="Keeper {at + 1}"
        classes={{ select: 'py-1.5' }}
        placeholder=""
        bind:value={() => rule.host, (host) => change(at, { host })}
        items={people.map((host) => ({ value: host.id, name: host.name }))}
      /></span
    >
    <TextButton
      class="min-h-9 px-1.5"
      aria-label="Remove keeper {at + 1}"
      onclick={() => set(rules.filter((_, i) => i !== at))}>×</TextButton
    >
    {#each editor.mendsUnder(`details.keepers[${at}]`) as mend (mend)}<p
        class="basis-full text-sm text-brick-text"
        role="alert"
      >
        {mend}
      </p>{/each}
  </div>
{/each}
{#if isShown && rules.length < MOST && people.length > 0}
  {#if questions.length > 0}
    <p><TextButton class="min-h-9" onclick={add}>Choose a keeper by an answer</TextButton></p>
  {:else}
    <p class="text-sm text-muted">Add a question to choose new guests’ keepers by their answers.</p>
  {/if}
{/if}
