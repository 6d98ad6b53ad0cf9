<script lang="ts">
  import { Checkbox, Input, Select } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { languages } from '$lib/links/languages';
  import Sentence from '$lib/pages/Sentence.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import {
    appointmentChoices,
    offerChoices,
    since,
    testInWords,
    testsOf,
    type FieldCondition,
    type GuestFilter,
  } from './filter';

  interface Props {
    filter: GuestFilter;
    people: { id: string; name: string }[];
    fields: Schemas['GuestFieldView'][];
    mend?: string | undefined;
    onchange: (filter: GuestFilter) => void;
  }

  let { filter, people, fields, mend, onchange }: Props = $props();

  const MOST_CONDITIONS = 10;
  const conditions = $derived(filter.fields ?? []);
  const keeper = $derived(filter.withoutKeeper ? 'none' : (filter.keeper ?? 'any'));

  function keptBy(value: string): void {
    onchange({
      ...filter,
      withoutKeeper: value === 'none',
      keeper: value === 'any' || value === 'none' ? null : value,
    });
  }

  function setCondition(at: number, change: Partial<FieldCondition>): void {
    onchange({ ...filter, fields: conditions.map((one, i) => (i === at ? { ...one, ...change } : one)) });
  }

  /** Another field asks for another kind of value. */
  function chooseField(at: number, id: string): void {
    const field = fields.find((one) => one.id === id);
    setCondition(at, { field: id, test: 'is', value: firstValue(field) });
  }

  function firstValue(field: Schemas['GuestFieldView'] | undefined): string {
    if (field?.kind === 'choice') return field.options[0] ?? '';
    return field?.kind === 'yesNo' ? 'yes' : '';
  }

  function addCondition(): void {
    const field = fields[0];
    if (!field) return;
    const asked = firstValue(field);
    onchange({
      ...filter,
      // Where nothing is typed yet, it asks for what can be asked without words.
      fields: [...conditions, { field: field.id, test: asked === '' ? 'filled' : 'is', value: asked }],
    });
  }
</script>

<section aria-label="Which guests are shown" class="space-y-2">
  <Sentence mends={[mend]}>
    Guests with
    <span class="w-52"
      ><Select
        aria-label="Which appointments they have"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={() => filter.appointments, (appointments) => onchange({ ...filter, appointments })}
        items={appointmentChoices}
      /></span
    >
    and
    <span class="w-44"
      ><Select
        aria-label="Which links they have"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={() => filter.offers, (offers) => onchange({ ...filter, offers })}
        items={offerChoices}
      /></span
    >
    kept by
    <span class="w-40"
      ><Select
        aria-label="Whose guests they are"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={() => keeper, (value) => keptBy(value)}
        items={[
          { value: 'any', name: 'anybody' },
          { value: 'none', name: 'nobody' },
          ...people.map((person) => ({ value: person.id, name: person.name })),
        ]}
      /></span
    >
    in
    <span class="w-36"
      ><Select
        aria-label="Their language"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={() => filter.language, (language) => onchange({ ...filter, language })}
        items={[{ value: '', name: 'any language' }, ...languages]}
      /></span
    >
  </Sentence>
  <div class="flex flex-wrap items-center gap-x-5 gap-y-2 text-muted">
    <label class="flex items-center gap-2 whitespace-nowrap"
      >not here since
      <Input
        type="date"
        class="w-40 py-1.5"
        value={filter.notSince ?? ''}
        onchange={(event) => onchange(since(filter, event.currentTarget.value))}
      /></label
    >
    {#snippet mark(name: 'flagged' | 'withoutEmail' | 'doubles', words: string)}
      <Checkbox class="text-ink" checked={filter[name]} onchange={() => onchange({ ...filter, [name]: !filter[name] })}
        >{words}</Checkbox
      >
    {/snippet}
    {@render mark('flagged', 'flagged by screening')}
    {@render mark('withoutEmail', 'without email')}
    {@render mark('doubles', 'likely doubles')}
    {#if fields.length > 0 && conditions.length < MOST_CONDITIONS}<TextButton class="min-h-9" onclick={addCondition}
        >+ field</TextButton
      >{/if}
  </div>
  {#each conditions as condition, at (at)}
    {@const field = fields.find((one) => one.id === condition.field)}
    {#if field}
      <Sentence>
        whose
        <span class="w-44"
          ><Select
            aria-label="Field {at + 1}"
            placeholder=""
            classes={{ select: 'py-1.5' }}
            bind:value={() => condition.field, (id) => chooseField(at, id)}
            items={fields.map((one) => ({ value: one.id, name: one.name }))}
          /></span
        >
        <span class="w-40"
          ><Select
            aria-label="What is asked of field {at + 1}"
            placeholder=""
            classes={{ select: 'py-1.5' }}
            bind:value={() => condition.test, (test) => setCondition(at, { test })}
            items={testsOf[field.kind].map((test) => ({ value: test, name: testInWords(field.kind, test) }))}
          /></span
        >
        {#if condition.test !== 'filled' && condition.test !== 'blank'}
          <span class="w-44">
            {#if field.kind === 'choice' || field.kind === 'yesNo'}
              <Select
                aria-label="Value of field {at + 1}"
                placeholder=""
                classes={{ select: 'py-1.5' }}
                bind:value={() => condition.value, (value) => setCondition(at, { value })}
                items={field.kind === 'yesNo'
                  ? [
                      { value: 'yes', name: 'Yes' },
                      { value: 'no', name: 'No' },
                    ]
                  : field.options.map((option) => ({ value: option, name: option }))}
              />
            {:else}
              <Input
                aria-label="Value of field {at + 1}"
                type={field.kind === 'date' ? 'date' : 'text'}
                class="py-1.5"
                value={condition.value}
                onchange={(event) => setCondition(at, { value: event.currentTarget.value })}
              />
            {/if}
          </span>
        {/if}
        <TextButton
          aria-label="Remove field {at + 1}"
          class="min-h-9"
          onclick={() => onchange({ ...filter, fields: conditions.filter((_, i) => i !== at) })}>Remove</TextButton
        >
      </Sentence>
    {/if}
  {/each}
</section>
