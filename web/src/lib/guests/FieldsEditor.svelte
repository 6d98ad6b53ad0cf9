<script lang="ts">
  import { Input, Select, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { fields, onsaved }: { fields: Schemas['GuestFieldView'][]; onsaved: () => void } = $props();

  const MOST = 30;
  const kinds: { value: Schemas['GuestFieldKind']; name: string }[] = [
    { value: 'text', name: 'Text' },
    { value: 'number', name: 'Number' },
    { value: 'date', name: 'Date' },
    { value: 'choice', name: 'Choice' },
    { value: 'yesNo', name: 'Yes or no' },
  ];

  interface Row {
    id: string | null;
    name: string;
    kind: Schemas['GuestFieldKind'];
    options: string;
    filled: number;
  }

  const rowOf = (field: Schemas['GuestFieldView']): Row => ({ ...field, options: field.options.join('\n') });

  // What is typed stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  let rows = $state<Row[]>(fields.map(rowOf));
  const attempt = new Attempt();
  let told = $state('');
  const gone = $derived(fields.filter((field) => field.filled > 0 && !rows.some((row) => row.id === field.id)));

  function move(at: number, by: number): void {
    const next = [...rows];
    const [row] = next.splice(at, 1);
    if (row) next.splice(at + by, 0, row);
    rows = next;
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    told = '';
    await attempt.run(async () => {
      const saved = await must(
        api.PUT('/api/guests/fields', {
          body: rows.map(({ id, name, kind, options }) => ({
            id,
            name,
            kind,
            options:
              kind === 'choice'
                ? options
                    .split('\n')
                    .map((option) => option.trim())
                    .filter((option) => option !== '')
                : [],
          })),
        }),
      );
      rows = saved.map(rowOf);
      told = 'Saved.';
      onsaved();
    });
  }
</script>

<form novalidate class="max-w-3xl space-y-3" onsubmit={(event) => void save(event)}>
  {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
  {#each rows as row, at (row.id ?? row)}
    <section
      aria-label={row.name || `Field ${at + 1}`}
      class="grid items-start gap-x-4 gap-y-2 rounded-2xl border border-line bg-card p-4 md:grid-cols-[1fr_160px_auto]"
    >
      <Field label="Name" id="field-name-{at}" mend={mendOf(attempt.problem, `fields[${at}].name`)}
        ><Input id="field-name-{at}" autocomplete="off" bind:value={row.name} /></Field
      >
      <Field label="Kind" id="field-kind-{at}" mend={mendOf(attempt.problem, `fields[${at}].kind`)}
        ><Select
          id="field-kind-{at}"
          placeholder=""
          disabled={row.id !== null}
          bind:value={row.kind}
          items={kinds}
        /></Field
      >
      <span class="flex flex-wrap gap-x-4 text-fine md:pt-7">
        {#if at > 0}<TextButton class="min-h-9" aria-label="Move {row.name} up" onclick={() => move(at, -1)}
            >Up</TextButton
          >{/if}
        {#if at < rows.length - 1}<TextButton
            class="min-h-9"
            aria-label="Move {row.name} down"
            onclick={() => move(at, 1)}>Down</TextButton
          >{/if}
        <TextButton
          class="min-h-9"
          aria-label="Remove {row.name}"
          onclick={() => (rows = rows.filter((_, i) => i !== at))}>Remove</TextButton
        >
      </span>
      {#if row.kind === 'choice'}
        <Field
          label="Options, one a line"
          id="field-options-{at}"
          class="md:col-span-2"
          mend={mendOf(attempt.problem, `fields[${at}].options`)}
          ><Textarea id="field-options-{at}" rows={3} class="w-full" bind:value={row.options} /></Field
        >
      {/if}
      {#if row.filled > 0}<p class="text-fine text-muted md:col-span-3">
          Filled in for {counted(row.filled, 'guest', 'guests')}
        </p>{/if}
    </section>
  {:else}
    <p class="rounded-2xl border border-line bg-card p-6 text-muted">
      No fields yet. Fields are what you want to know of every guest besides their name and how to reach them.
    </p>
  {/each}
  {#each gone as field (field.id)}
    <p role="status" class="rounded-lg border-l-4 border-brick bg-brick-tint px-4 py-2 text-brick-text">
      Saving deletes “{field.name}” and what {counted(field.filled, 'guest has', 'guests have')} in it.
    </p>
  {/each}
  <div class="flex flex-wrap items-center gap-3">
    {#if rows.length < MOST}<ActionButton
        onclick={() => (rows = [...rows, { id: null, name: '', kind: 'text', options: '', filled: 0 }])}
        >Add a field</ActionButton
      >{/if}
    <ActionButton kind="main" type="submit" disabled={attempt.busy}>Save fields</ActionButton>
    <span role="status" class="text-muted">{told}</span>
  </div>
</form>
