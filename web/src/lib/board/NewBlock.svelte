<script lang="ts">
  import { onMount } from 'svelte';
  import { Input, Select } from 'flowbite-svelte';
  import { Temporal } from 'temporal-polyfill';
  import ActingForNote from '$lib/acting/ActingForNote.svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { addressFrom } from '$lib/pages/address';
  import { newForm } from '$lib/pages/form';
  import { longDate } from '$lib/time/format';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import { blocksWith, buffersCost, placeOf, spanInWords } from './blocks';
  import type { BoardSpan } from './pieces';
  import RepeatFields from './RepeatFields.svelte';
  import { codeOf, lastDateMend, ruleOf, type Repeat } from './repeats';

  interface Props {
    board: Schemas['BoardAnswer'];
    span: BoardSpan;
    host: Schemas['BoardHost'];
    desks: Schemas['DeskView'][];
    usual: Schemas['UsualSettings'];
    /** The host as the team knows it, to say whose work it is. */
    acted: Schemas['HostView'] | undefined;
    /** The reader's own time. */
    own: string | null;
    onmade: (told: string) => void;
    onclose: () => void;
  }

  let { board, span, host, desks, usual, acted, own, onmade, onclose }: Props = $props();

  // The form is made once for what was painted.
  // svelte-ignore state_referenced_locally
  const length = span.to - span.from;
  // Which pages have office hours of theirs; asked as the dialog opens.
  let others = $state.raw<Schemas['PageName'][]>([]);
  let pageId = $state('');
  let title = $state('');
  // svelte-ignore state_referenced_locally
  let deskId = $state(desks[0]?.id ?? '');
  let offered = $state<'cut' | 'whole'>('cut');
  // svelte-ignore state_referenced_locally
  let minutes = $state(Math.min(usual.duration ?? 30, length));
  // svelte-ignore state_referenced_locally
  let repeat = $state.raw<Repeat>({
    how: 'once',
    every: 1,
    days: [codeOf(span.date)],
    ends: 'until',
    until: Temporal.PlainDate.from(span.date).add({ weeks: 8 }).toString(),
    count: 10,
  });
  onMount(async () => {
    // Without an answer it is for a new page, as it is for who has none.
    const asked = await api.GET('/api/pages/of-host/{id}', { params: { path: { id: host.id } } });
    others = asked.data?.withBlocks ?? [];
    // Unless another was chosen meanwhile.
    if (deskId === desks[0]?.id) deskId = asked.data?.deskId ?? deskId;
  });
  const costs = $derived(buffersCost(length, minutes, Math.max(usual.bufferBefore ?? 0, usual.bufferAfter ?? 0) || 10));
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  const errors = $derived(problem?.errors ?? {});
  const mend = (...fields: string[]): string | undefined =>
    fields.map((field) => (errors[field] ?? errors[`form.${field}`])?.[0]).find((one) => one !== undefined);

  function block(zone: string): Schemas['BlockForm'] {
    return {
      ...placeOf(board, zone, span),
      rule: ruleOf(repeat, placeOf(board, zone, span).start.slice(0, 10)),
      without: [],
    };
  }

  function newPage(): Schemas['PageForm'] {
    const form = newForm(board.zone, deskId, host.id, usual);
    Object.assign(form, { title, address: addressFrom(title) });
    const duration = offered === 'whole' ? length : minutes;
    Object.assign(form.times, {
      durations: [duration],
      // Openings lie wall to wall; what buffers would cost is said beside.
      bufferBefore: 0,
      bufferAfter: 0,
      step: Math.max(duration, 5),
      stepFrom: 'open',
      hoursMode: 'page',
      hours: null,
      aheadDays: 90,
      blocks: { whole: offered === 'whole', list: [block(board.zone)] },
    });
    return form;
  }

  async function keep(publish: boolean): Promise<void> {
    if (lastDateMend(repeat, span.date) !== undefined) return;
    await attempt.run(async () => {
      if (pageId !== '') {
        const known = await must(api.GET('/api/pages/{id}', { params: { path: { id: pageId } } }));
        const form = known.published ?? known.form;
        const list = [...(form.times.blocks?.list ?? []), block(form.times.zone)];
        await must(
          api.PUT('/api/pages/{id}/blocks', {
            params: { path: { id: known.id } },
            body: { version: known.version, blocks: blocksWith(form, list) },
          }),
        );
        onmade(`Added to “${known.form.title}”.`);
      } else {
        const made = await must(api.POST('/api/pages', { body: newPage() }));
        if (publish)
          await must(
            api.POST('/api/pages/{id}/publish', { params: { path: { id: made.id } }, body: { version: made.version } }),
          );
        onmade(publish ? `Published. Guests can book at ${made.path}.` : `Saved as a draft at ${made.path}.`);
      }
    });
  }
</script>

<Dialog title="Office hours of {host.name}" size="md" {onclose}>
  {#if acted}<ActingForNote hosts={[acted]} {own} />{/if}
  <p class="mb-3">{spanInWords(longDate(span.date), span)}</p>
  {#if problem && (!problem.errors || !mend('title', 'address', 'times.durations', 'times.durations[0]', 'times.blocks', 'times.blocks.list[0].rule', 'times.step'))}<div
      class="mb-3"
    >
      <ProblemNote {problem}
        >{#each Object.values(errors).flat() as one (one)}<p>{one}</p>{/each}</ProblemNote
      >
    </div>{/if}
  <div class="space-y-4">
    {#if others.length > 0}
      <Field label="For" id="block-page">
        <Select
          id="block-page"
          placeholder=""
          bind:value={pageId}
          items={[{ value: '', name: 'a new page' }, ...others.map((page) => ({ value: page.id, name: page.title }))]}
        />
      </Field>
    {/if}
    {#if pageId === ''}
      <Field
        label="Title, as guests read it"
        id="block-title"
        hint={title === ''
          ? 'The address comes from the title'
          : `/${desks.find((desk) => desk.id === deskId)?.address ?? ''}/${addressFrom(title)}`}
        mend={mend('title', 'address')}
      >
        <Input id="block-title" bind:value={title} />
      </Field>
      {#if desks.length > 1}
        <Field label="Desk" id="block-desk"
          ><Select
            id="block-desk"
            placeholder=""
            bind:value={deskId}
            items={desks.map((desk) => ({ value: desk.id, name: desk.name }))}
          /></Field
        >
      {/if}
      <div>
        <Segments
          label="How they are offered"
          options={[
            { value: 'cut', text: 'Cut into openings' },
            { value: 'whole', text: 'One opening for the whole length' },
          ] as const}
          value={offered}
          onchoose={(value) => (offered = value)}
        />
        {#if offered === 'cut'}
          <p class="mt-2 text-muted">
            each <span class="inline-block w-20"
              ><Input
                aria-label="Minutes of an opening"
                type="number"
                min={5}
                max={length}
                bind:value={minutes}
                class="py-1.5"
              /></span
            > min, from the start of the block
          </p>
          {#if costs}<p class="mt-1 text-sm text-muted" data-test="buffers-cost">{costs}</p>{/if}
          {#if mend('times.durations', 'times.durations[0]', 'times.step')}<p class="text-sm text-brick" role="alert">
              {mend('times.durations', 'times.durations[0]', 'times.step')}
            </p>{/if}
        {/if}
      </div>
    {/if}
    <RepeatFields bind:repeat date={span.date} mend={mend('times.blocks.list[0].rule')} />
  </div>
  <div class="mt-5 flex flex-wrap justify-end gap-3">
    <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
    {#if pageId === ''}
      <ActionButton disabled={attempt.busy} onclick={() => void keep(false)}>Save as draft</ActionButton>
      <ActionButton kind="main" disabled={attempt.busy} onclick={() => void keep(true)}>Publish</ActionButton>
    {:else}
      <ActionButton kind="main" disabled={attempt.busy} onclick={() => void keep(false)}>Add the block</ActionButton>
    {/if}
  </div>
</Dialog>
