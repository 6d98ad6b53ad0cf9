<script lang="ts">
  import Mend from '$lib/ui/Mend.svelte';
  import { Input, Select } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { placeKinds } from '$lib/guest/place';
  import { inWords } from '$lib/pages/units';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { clocks, languages } from '$lib/you/choices';
  import TextButton from '$lib/ui/TextButton.svelte';

  type Settings = Schemas['UsualSettings'];

  interface Props {
    usual: Schemas['UsualAnswer'];
    whose: 'person' | 'workspace';
    onsaved: () => void;
  }

  let { usual, whose, onsaved }: Props = $props();

  // The form is made anew for each of the two.
  // svelte-ignore state_referenced_locally
  const form = $state<Settings>({ ...usual[whose] });
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  let told = $state('');
  // What holds where this one is left open.
  const below = $derived<Settings>(
    whose === 'workspace'
      ? usual.product
      : (Object.fromEntries(
          Object.entries(usual.product).map(([key, value]) => [key, usual.workspace[key as keyof Settings] ?? value]),
        ) as Settings),
  );
  const from = (key: keyof Settings): string =>
    whose === 'person' && usual.workspace[key] !== null ? 'the workspace’s' : 'as it comes';

  const rows = [
    { key: 'duration', label: 'Duration, minutes', said: (settings: Settings) => inWords(settings.duration ?? 0) },
    {
      key: 'bufferBefore',
      label: 'Kept free before, minutes',
      said: (settings: Settings) => `${settings.bufferBefore} min`,
    },
    {
      key: 'bufferAfter',
      label: 'Kept free after, minutes',
      said: (settings: Settings) => `${settings.bufferAfter} min`,
    },
    { key: 'notice', label: 'Notice, minutes', said: (settings: Settings) => inWords(settings.notice ?? 0) },
  ] as const;
  const choices = [
    {
      key: 'placeKind',
      label: 'Kind of place',
      items: placeKinds.map((kind) => ({ value: kind.value, name: kind.text })),
    },
    { key: 'language', label: 'Language for guests', items: languages },
    { key: 'clock', label: 'Clock', items: clocks.map((clock) => ({ value: clock.value, name: clock.text })) },
  ] as const;

  const mendsOf = (key: string): string[] => [
    ...new Set(
      Object.entries(problem?.errors ?? {})
        .filter(([field]) => field === key || field.startsWith(`${key}[`))
        .flatMap(([, mends]) => mends),
    ),
  ];
  const typed = (event: Event): string => (event.currentTarget as HTMLInputElement).value;

  function number(text: string): number | null {
    return text.trim() === '' ? null : Number(text);
  }

  function reminders(text: string): number[] | null {
    return text.trim() === ''
      ? null
      : text
          .split(/[,;\s]+/)
          .filter((part) => part !== '')
          .map(Number);
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    told = '';
    await attempt.run(async () => {
      await must(
        whose === 'person' ? api.PUT('/api/me/usual', { body: form }) : api.PUT('/api/workspace/usual', { body: form }),
      );
      told = 'Saved. New pages start from these; existing pages don’t change.';
      onsaved();
    });
  }
</script>

{#snippet left(key: keyof Settings, said: string)}
  <span class="text-sm text-muted">{form[key] === null ? `left open: ${said}, ${from(key)}` : 'chosen here'}</span>
  {#if form[key] !== null}<TextButton
      aria-label="use the default: {key}"
      class="min-h-8 text-sm"
      onclick={() => Object.assign(form, { [key]: null })}>use the default</TextButton
    >{/if}
  {#each mendsOf(key) as mend (mend)}<Mend words={mend} class="w-full" />{/each}
{/snippet}

<form novalidate class="space-y-3 rounded-2xl border border-line bg-card p-5" onsubmit={(event) => void save(event)}>
  {#if problem}<ProblemNote {problem} />{/if}
  {#each rows as row (row.key)}
    <div class="flex flex-wrap items-center gap-x-3">
      <label class="w-52" for="usual-{row.key}">{row.label}</label>
      <span class="w-28"
        ><Input
          id="usual-{row.key}"
          type="number"
          value={form[row.key] ?? ''}
          oninput={(event: Event) => void (form[row.key] = number(typed(event)))}
          class="py-1.5"
        /></span
      >
      {@render left(row.key, row.said(below))}
    </div>
  {/each}
  {#each choices as choice (choice.key)}
    <div class="flex flex-wrap items-center gap-x-3">
      <label class="w-52" for="usual-{choice.key}">{choice.label}</label>
      <Select
        id="usual-{choice.key}"
        class="w-48 py-1.5"
        placeholder=""
        value={form[choice.key] ?? ''}
        onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
          Object.assign(form, { [choice.key]: event.currentTarget.value === '' ? null : event.currentTarget.value })}
        items={[{ value: '', name: 'left open' }, ...choice.items]}
      />
      {@render left(choice.key, choice.items.find((item) => item.value === below[choice.key])?.name ?? '')}
    </div>
  {/each}
  <div class="flex flex-wrap items-center gap-x-3">
    <label class="w-52" for="usual-place">Place</label>
    <span class="w-64"
      ><Input
        id="usual-place"
        value={form.place ?? ''}
        oninput={(event: Event) => void (form.place = typed(event) === '' ? null : typed(event))}
        class="py-1.5"
      /></span
    >
    {@render left('place', below.place === '' || below.place === null ? 'none' : below.place)}
  </div>
  <div class="flex flex-wrap items-center gap-x-3">
    <label class="w-52" for="usual-reminders">Reminders, minutes before</label>
    <span class="w-48"
      ><Input
        id="usual-reminders"
        value={form.reminders?.join(', ') ?? ''}
        onchange={(event) => (form.reminders = reminders(event.currentTarget.value))}
        class="py-1.5"
      /></span
    >
    {@render left('reminders', (below.reminders ?? []).map(inWords).join(' and '))}
  </div>
  <div class="flex flex-wrap items-center gap-3">
    <ActionButton kind="main" type="submit">Save defaults</ActionButton><span role="status" class="text-muted"
      >{told}</span
    >
  </div>
</form>
