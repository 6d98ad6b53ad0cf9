<script lang="ts">
  import Mend from '$lib/ui/Mend.svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { faultOf } from '$lib/api/problem';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import AddChange from './AddChange.svelte';
  import { changeInWords, datesInWords, type Change } from './changes';
  import { readHolidays } from './files';
  import YearStrip from './YearStrip.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    changes: Change[];
    zone: string;
    today: string;
    mends: string[];
  }

  let { changes = $bindable(), zone, today, mends }: Props = $props();

  let adding = $state(false);
  let found = $state.raw<{ change: Change; chosen: boolean }[] | undefined>(undefined);
  let skipped = $state(0);
  const reading = new Attempt();
  const fileMend = $derived(reading.problem && faultOf(reading.problem, 'file'));
  let showsPast = $state(false);

  const numbered = $derived(changes.map((change, index) => ({ change, index })));
  const ahead = $derived(
    numbered.filter(({ change }) => change.to >= today).sort((a, b) => a.change.from.localeCompare(b.change.from)),
  );
  const past = $derived(numbered.filter(({ change }) => change.to < today));

  async function load(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    if (!file) return;
    await reading.run(async () => {
      const read = await readHolidays(zone, file);
      // What stands there already is not added twice.
      found = read.changes
        .filter(
          (change) =>
            !changes.some((known) => known.from === change.from && known.to === change.to && known.open.length === 0),
        )
        .map((change) => ({ change, chosen: true }));
      skipped = read.skipped;
    });
    input.value = '';
  }

  function choose(index: number): void {
    found = found?.map((one, other) => (other === index ? { ...one, chosen: !one.chosen } : one));
  }

  function takeFound(): void {
    changes = [...changes, ...(found ?? []).filter((one) => one.chosen).map((one) => one.change)];
    found = undefined;
  }
</script>

{#snippet row(change: Change, index: number)}
  <li class="flex flex-wrap items-baseline gap-x-3 border-t border-line py-1.5 first:border-t-0">
    <span class="min-w-44">{datesInWords(change)}</span>
    <span class={change.open.length === 0 ? 'text-muted' : ''}>{changeInWords(change)}</span>
    <TextButton
      aria-label="Delete {datesInWords(change)}"
      class="ml-auto min-h-8 text-sm"
      onclick={() => (changes = changes.filter((_, other) => other !== index))}>delete</TextButton
    >
  </li>
{/snippet}

<YearStrip {changes} {today} />
{#if ahead.length > 0}
  <ul aria-label="Dated changes to come">
    {#each ahead as { change, index } (index)}{@render row(change, index)}{/each}
  </ul>
{:else}
  <p class="text-muted">No dated changes ahead: every week is the same.</p>
{/if}
{#if past.length > 0}
  <TextButton class="text-sm" aria-expanded={showsPast} onclick={() => (showsPast = !showsPast)}
    >{counted(past.length, 'past change', 'past changes')}</TextButton
  >
  {#if showsPast}<ul>
      {#each past as { change, index } (index)}{@render row(change, index)}{/each}
    </ul>{/if}
{/if}
{#each mends as mend (mend)}<Mend words={mend} class="" />{/each}
{#if adding}
  <AddChange
    {today}
    onadd={(change) => {
      changes = [...changes, change];
      adding = false;
    }}
    onclose={() => (adding = false)}
  />
{:else}
  <div class="flex flex-wrap items-center gap-4">
    <ActionButton onclick={() => (adding = true)}>Add a dated change</ActionButton>
    <label class="cursor-pointer text-sm underline underline-offset-4 focus-within:outline-3">
      Load holidays from a calendar file<input
        type="file"
        accept=".ics,text/calendar"
        class="sr-only"
        aria-label="Holidays file"
        onchange={(event) => void load(event.currentTarget)}
      />
    </label>
  </div>
{/if}
{#if fileMend}<p class="text-sm text-brick" role="alert">{fileMend} Nothing was changed.</p>{/if}
{#if found}
  <div class="rounded-lg border border-line bg-paper p-4" data-test="holidays">
    {#if found.length === 0}
      <p>
        No whole days of the next two years that are not there already{skipped > 0
          ? `; ${counted(skipped, 'other event', 'other events')} left out`
          : ''}.
      </p>
    {:else}
      <p class="mb-1">
        Closed on {counted(found.filter((one) => one.chosen).length, 'run of days', 'runs of days')}{skipped > 0
          ? `; ${counted(skipped, 'event', 'events')} of the file ${skipped === 1 ? 'is' : 'are'} no whole day and left out`
          : ''}:
      </p>
      <ul class="max-h-56 overflow-y-auto">
        {#each found as { change, chosen }, i (i)}
          <li>
            <Choice class="flex min-h-8"
              ><input type="checkbox" checked={chosen} onchange={() => choose(i)} class="h-4 w-4" />{datesInWords(
                change,
              )} <span class="text-muted">{change.name ?? ''}</span></Choice
            >
          </li>
        {/each}
      </ul>
    {/if}
    <div class="mt-2 flex gap-2">
      {#if found.some((one) => one.chosen)}<ActionButton onclick={takeFound}>Add these days</ActionButton>{/if}
      <ActionButton kind="quiet" onclick={() => (found = undefined)}>Cancel</ActionButton>
    </div>
  </div>
{/if}
