<script lang="ts">
  import { Checkbox, Select } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Mend from '$lib/ui/Mend.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import { choiceOf, keyOf, meanings, outcomes, separators } from './importing';

  interface Props {
    preview: Schemas['ImportPreview'];
    fields: Schemas['GuestFieldView'][];
    onchange: (preview: Schemas['ImportPreview']) => void;
    ondone: (done: Schemas['ImportRow']) => void;
    oncancel: () => void;
  }

  let { preview, fields, onchange, ondone, oncancel }: Props = $props();

  const looking = new Attempt();
  const running = new Attempt();
  let known = $state<Schemas['KnownGuests']>('fill');
  let leaveOut = $state(false);
  const comeIn = $derived(preview.new + preview.changed);
  const mayRun = $derived(comeIn > 0 && (preview.faulty === 0 || leaveOut) && !looking.busy && !running.busy);
  const items = $derived([...meanings, ...fields.map((field) => ({ value: field.id, name: field.name }))]);

  interface Reading {
    encoding?: string;
    separator?: string;
    columns?: Schemas['ColumnChoice'][];
  }

  const columnsNow = (): Schemas['ColumnChoice'][] => preview.columns.map((column) => column.choice);

  function formOf(reading: Reading): Schemas['ImportForm'] {
    return {
      encoding: preview.isCards ? null : preview.encoding,
      separator: preview.isCards ? null : preview.separator,
      columns: columnsNow(),
      known,
      leaveOutFaulty: leaveOut,
      ...reading,
    };
  }

  async function look(reading: Reading): Promise<void> {
    await looking.run(async () => {
      // Torn apart otherwise, the columns are others.
      const form = {
        ...formOf(reading),
        ...(reading.columns ? {} : { columns: reading.separator ? null : columnsNow() }),
      };
      onchange(
        await must(api.POST('/api/guests/imports/{id}/preview', { params: { path: { id: preview.id } }, body: form })),
      );
    });
  }

  async function run(): Promise<void> {
    await running.run(async () => {
      ondone(
        await must(
          api.POST('/api/guests/imports/{id}/run', { params: { path: { id: preview.id } }, body: formOf({}) }),
        ),
      );
    });
  }

  function choose(at: number, key: string): void {
    void look({ columns: columnsNow().map((choice, i) => (i === at ? choiceOf(key) : choice)) });
  }
</script>

<section aria-labelledby="columns" class="rounded-2xl border border-line bg-card p-5">
  <div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
    <h2 id="columns" class="text-lg wrap-anywhere">{preview.fileName}</h2>
    <span class="text-muted">{counted(preview.rows, 'row', 'rows')}</span>
    {#if !preview.isCards}
      <label class="flex items-center gap-2 text-muted"
        >separated by
        <span class="w-36"
          ><Select
            aria-label="What stands between cells"
            placeholder=""
            classes={{ select: 'py-1.5' }}
            bind:value={() => preview.separator, (separator) => void look({ separator })}
            items={separators}
          /></span
        ></label
      >
      <label class="flex items-center gap-2 text-muted"
        >saved as
        <span class="w-44"
          ><Select
            aria-label="Encoding"
            placeholder=""
            classes={{ select: 'py-1.5' }}
            bind:value={() => preview.encoding, (encoding) => void look({ encoding })}
            items={preview.encodings.map((one) => ({ value: one, name: one }))}
          /></span
        ></label
      >
    {/if}
  </div>
  {#if looking.problem && Object.keys(looking.problem.errors ?? {}).length === 0}<ProblemNote
      problem={looking.problem}
    />{/if}
  <table class="w-full text-left max-md:block">
    <caption class="sr-only">Columns of the file</caption>
    <thead class="text-fine text-muted max-md:hidden">
      <tr>
        <th scope="col" class="w-1/4 pb-1 font-normal">Column</th>
        <th scope="col" class="pb-1 font-normal">What stands there</th>
        <th scope="col" class="w-56 pb-1 font-normal">Is the guest’s</th>
      </tr>
    </thead>
    <tbody class="max-md:block">
      {#each preview.columns as column, at (at)}
        {@const name = column.name || `Column ${at + 1}`}
        <tr class="max-md:block max-md:py-2">
          <th scope="row" class="border-t border-line py-1.5 pr-3 align-top font-semibold wrap-anywhere max-md:block"
            >{name}</th
          >
          <td class="border-t border-line py-1.5 pr-3 align-top wrap-anywhere text-muted max-md:block max-md:border-0"
            >{column.samples.join(' · ')}</td
          >
          <td class="border-t border-line py-1.5 max-md:block max-md:border-0">
            <Select
              aria-label="What {name} is"
              placeholder=""
              classes={{ select: 'py-1.5' }}
              bind:value={() => keyOf(column.choice), (key) => choose(at, key)}
              {items}
            />
            {#if mendOf(looking.problem, `columns[${at}]`)}<Mend
                words={mendOf(looking.problem, `columns[${at}]`) ?? ''}
              />{/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</section>

<section aria-labelledby="what" class="mt-5 rounded-2xl border border-line bg-card p-5">
  <h2 id="what" class="mb-2 text-lg">What comes in</h2>
  <p role="status">
    {counted(preview.new, 'new guest', 'new guests')}, {preview.changed} changed, {preview.unchanged} unchanged{preview.faulty >
    0
      ? `; something is wrong with ${counted(preview.faulty, 'row', 'rows')}`
      : ''}.
  </p>
  <div class="mt-3 flex flex-wrap items-center gap-3">
    <span class="text-muted">Guests you know already:</span>
    <Segments
      label="Guests you know already"
      options={[
        { value: 'fill', text: 'Fill in blanks' },
        { value: 'replace', text: 'Replace by the file' },
        { value: 'leave', text: 'Leave as they are' },
      ]}
      value={known}
      onchoose={(chosen) => {
        known = chosen;
        void look({ columns: columnsNow() });
      }}
    />
  </div>
  {#if preview.samples.length > 0}
    <table class="mt-4 w-full text-left text-fine">
      <caption class="sr-only">The first guests that come in</caption>
      <tbody>
        {#each preview.samples as sample (sample.row)}
          <tr>
            <td class="w-16 border-t border-line py-1 text-muted">row {sample.row}</td>
            <td class="w-24 border-t border-line py-1 {sample.outcome === 'new' ? 'text-sea-text' : 'text-muted'}"
              >{outcomes[sample.outcome]}</td
            >
            <td class="border-t border-line py-1 font-semibold wrap-anywhere">{sample.name}</td>
            <td class="border-t border-line py-1 wrap-anywhere">{sample.email}</td>
            <td class="border-t border-line py-1 wrap-anywhere text-muted max-md:hidden">{sample.organisation}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
  {#if preview.faults.length > 0}
    <h3 class="mt-4 font-semibold">Wrong rows</h3>
    <ul class="max-h-80 overflow-y-auto" aria-label="Wrong rows">
      {#each preview.faults as fault, at (at)}
        <li class="border-t border-line py-1">
          <span class="text-muted"
            >Row {fault.row}{fault.column ? `, ${fault.column}` : ''}{fault.value ? ':' : ''}</span
          >
          <span class="wrap-anywhere">{fault.value}</span>
          <span class="text-brick">{fault.mend}</span>
        </li>
      {/each}
    </ul>
    <div class="mt-3"><Checkbox bind:checked={leaveOut}>Leave these rows out and import the others</Checkbox></div>
  {/if}
  {#if running.problem}<div class="mt-3"><ProblemNote problem={running.problem} /></div>{/if}
  <div class="mt-4 flex flex-wrap gap-3">
    <ActionButton kind="main" disabled={!mayRun} onclick={() => void run()}
      >Import {counted(comeIn, 'guest', 'guests')}</ActionButton
    >
    <ActionButton kind="quiet" onclick={oncancel}>Choose another file</ActionButton>
  </div>
</section>
