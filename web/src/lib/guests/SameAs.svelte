<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import { dateIn, dayMonth } from '$lib/time/format';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import MergeGuests from './MergeGuests.svelte';

  interface Props {
    guest: Schemas['GuestDetail'];
    fields: Schemas['GuestFieldView'][];
    zone: string;
    mayChange: boolean;
  }

  let { guest, fields, zone, mayChange }: Props = $props();

  const attempt = new Attempt();
  let other = $state.raw<Schemas['GuestDetail'] | undefined>(undefined);

  const compare = (id: string): Promise<boolean> =>
    attempt.run(async () => {
      other = await must(api.GET('/api/guests/{id}', { params: { path: { id } } }));
    });

  async function then(doing: () => Promise<unknown>): Promise<void> {
    await attempt.run(doing);
    await askAnew();
  }
</script>

{#if guest.doubles.length > 0 || guest.merges.length > 0}
  <section aria-labelledby="same" class="rounded-2xl border border-line bg-card p-5">
    <h2 id="same" class="mb-1 text-lg">{guest.doubles.length > 0 ? 'Perhaps the same person' : 'Merged guests'}</h2>
    {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
    <ul>
      {#each guest.doubles as double (double.id)}
        <li class="flex flex-wrap items-baseline gap-x-3 border-t border-line py-1.5 first:border-t-0">
          <a class="underline decoration-line-strong underline-offset-4" href="/work/guests/{double.id}"
            >{double.name}</a
          >
          <span class="text-fine wrap-anywhere text-muted"
            >{[
              double.email,
              double.organisation,
              double.sameName ? 'same name' : '',
              double.samePhone ? 'same phone number' : '',
            ]
              .filter((part) => part !== '')
              .join(', ')}</span
          >
          {#if mayChange}<span class="ml-auto flex gap-4">
              <TextButton
                class="min-h-7"
                aria-label="Merge with {double.name}, {double.email || double.organisation}"
                disabled={attempt.busy}
                onclick={() => void compare(double.id)}>Merge</TextButton
              >
              <TextButton
                class="min-h-7"
                disabled={attempt.busy}
                onclick={() =>
                  void then(() =>
                    must(
                      api.POST('/api/guests/{id}/keep-apart', {
                        params: { path: { id: guest.id } },
                        body: { other: double.id },
                      }),
                    ),
                  )}>Different people</TextButton
              >
            </span>{/if}
        </li>
      {/each}
      {#each guest.merges as merge (merge.id)}
        <li class="flex flex-wrap items-baseline gap-x-3 border-t border-line py-1.5 first:border-t-0">
          <span>{merge.name}</span>
          <span class="text-fine text-muted">merged {dayMonth(dateIn(merge.at, zone))}, {merge.by}</span>
          {#if mayChange}<TextButton
              class="ml-auto min-h-7"
              aria-label="Undo merge with {merge.name}"
              disabled={attempt.busy}
              onclick={() =>
                void then(() => must(api.POST('/api/guests/merges/{id}/undo', { params: { path: { id: merge.id } } })))}
              >Undo merge</TextButton
            >{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}

{#if other}
  <MergeGuests
    kept={guest}
    {other}
    {fields}
    onmerged={() => {
      other = undefined;
      void askAnew();
    }}
    onclose={() => (other = undefined)}
  />
{/if}
