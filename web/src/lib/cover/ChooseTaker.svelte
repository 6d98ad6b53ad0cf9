<script lang="ts">
  import { Select } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { loadInWords } from '$lib/bookings/load';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    line: Schemas['CoverLineView'];
    /** Whose seat it is. */
    seat: Schemas['CoverSeatView'];
    /** Who can't come, so is not offered. */
    away: string[];
    kinds: ReadonlyMap<string, Schemas['HostKind']>;
    onchoose: (host: string) => void;
  }

  let { line, seat, away, kinds, onchoose }: Props = $props();

  const NOBODY = '';
  let takers = $state.raw<Schemas['Taker'][] | undefined>(undefined);
  const looking = new Attempt();
  const has = $derived(line.after?.find((one) => one.seat === seat.seat));
  // A room takes a room's place, and a person a person's.
  const offered = $derived(
    (takers ?? []).filter(
      (one) =>
        !away.includes(one.id) &&
        one.id !== has?.host &&
        (one.kind === 'person') === (kinds.get(seat.host) === 'person'),
    ),
  );

  async function open(): Promise<void> {
    await looking.run(async () => {
      takers = await must(api.GET('/api/sessions/{id}/hosts', { params: { path: { id: line.session } } }));
    });
  }
</script>

{#if takers}
  <span class="inline-block w-72 max-w-full">
    <Select
      aria-label="Who takes it from {seat.name}: {line.guests[0] ?? line.page}"
      placeholder=""
      value={has?.host ?? NOBODY}
      items={[
        ...(has ? [{ value: has.host, name: has.name }] : [{ value: NOBODY, name: 'Choose somebody' }]),
        ...offered.map((one) => ({ value: one.id, name: `${one.name} (${loadInWords(one)})` })),
      ]}
      onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
        event.currentTarget.value !== NOBODY && onchoose(event.currentTarget.value)}
    />
  </span>
  {#if offered.length === 0}<span class="text-fine text-muted">Nobody else is free then.</span>{/if}
{:else}
  <TextButton
    class="min-h-6 text-fine"
    disabled={looking.busy}
    aria-label="{has ? 'Someone else' : 'Choose somebody'} instead of {seat.name}: {line.guests[0] ?? line.page}"
    onclick={() => void open()}>{has ? 'Someone else' : 'Choose somebody'}</TextButton
  >
{/if}
{#if looking.problem}<ProblemNote problem={looking.problem} />{/if}
