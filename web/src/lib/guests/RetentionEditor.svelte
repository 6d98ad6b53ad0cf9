<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { counted, dateIn, dayMonth } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Mend from '$lib/ui/Mend.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { fieldOf, rowsOf, rulesOf, type RetentionRow } from './erasing';

  let { saved, zone }: { saved: Schemas['RetentionView']; zone: string } = $props();

  // What is typed stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  let look = $state.raw(saved);
  // svelte-ignore state_referenced_locally
  let rows = $state<RetentionRow[]>(rowsOf(saved.rules, saved.kinds));
  // svelte-ignore state_referenced_locally
  let kept = $state.raw(JSON.stringify(saved.rules));
  const attempt = new Attempt();
  let told = $state('');
  const isChanged = $derived(JSON.stringify(rulesOf(rows)) !== kept);

  const nameOf = (kind: string | null): string =>
    kind === null ? 'Never booked' : kind === '' ? 'Links, and pages without a kind' : kind;

  async function preview(): Promise<void> {
    told = '';
    await attempt.run(async () => {
      look = await must(api.POST('/api/guests/retention/preview', { body: rulesOf(rows) }));
    });
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    told = '';
    await attempt.run(async () => {
      look = await must(api.PUT('/api/guests/retention', { body: rulesOf(rows) }));
      kept = JSON.stringify(look.rules);
      told = 'Saved.';
    });
  }
</script>

<form novalidate class="grid max-w-5xl items-start gap-5 lg:grid-cols-2" onsubmit={(event) => void save(event)}>
  <section class="rounded-2xl border border-line bg-card p-5" aria-labelledby="rules">
    <h2 id="rules" class="text-lg">Erase guests</h2>
    <p class="mb-3 text-muted">Months after their last booking. Leave it empty to keep them.</p>
    {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
    {#each rows as row, at (row.kind)}
      {@const mend = mendOf(attempt.problem, fieldOf(rows, row))}
      <div class="flex flex-wrap items-center gap-x-3 border-t border-line py-2 first-of-type:border-t-0">
        <label class="flex-1 wrap-anywhere" for="months-{at}">{nameOf(row.kind)}</label>
        <div class="w-20">
          <Input
            id="months-{at}"
            inputmode="numeric"
            autocomplete="off"
            class="py-1.5 text-right"
            aria-describedby={mend ? `months-${at}-mend` : undefined}
            bind:value={row.months}
          />
        </div>
        <span class="text-muted" aria-hidden="true">months</span>
        {#if mend}<div class="basis-full"><Mend id="months-{at}-mend" words={mend} /></div>{/if}
      </div>
    {/each}
    <p class="mt-1 mb-4 text-fine text-muted">
      Who booked several kinds is kept until the time of each is over. Who never booked counts from the last link or
      note. Nobody is erased while a booking is to come or a link can still be used.
    </p>
    <div class="flex flex-wrap items-center gap-3">
      <ActionButton disabled={!isChanged || attempt.busy} onclick={() => void preview()}>Preview</ActionButton>
      <ActionButton kind="main" type="submit" disabled={!isChanged || attempt.busy}>Save</ActionButton>
      <span role="status" class="text-muted">{told}</span>
    </div>
  </section>

  <section class="rounded-2xl border border-line bg-card p-5" aria-labelledby="due">
    <h2 id="due" class="text-lg">Due to be erased</h2>
    <p role="status" class="mb-2 text-muted">
      {look.tonight === 0 ? 'Nobody' : counted(look.tonight, 'guest', 'guests')} tonight, {look.soon === 0
        ? 'nobody'
        : counted(look.soon, 'guest', 'guests')} within 30 days
    </p>
    <ul>
      {#each look.first as guest (guest.id)}
        <li class="flex flex-wrap items-baseline gap-x-3 border-t border-line py-1.5 first:border-t-0">
          <a class="underline decoration-line-strong underline-offset-4 wrap-anywhere" href="/work/guests/{guest.id}"
            >{guest.name}</a
          >
          <span class="ml-auto text-fine text-muted">
            {guest.due <= look.now ? 'tonight' : dayMonth(dateIn(guest.due, zone))}
          </span>
        </li>
      {/each}
    </ul>
    {#if look.soon > look.first.length}<p class="mt-2 text-fine text-muted">
        and {counted(look.soon - look.first.length, 'other', 'others')}
      </p>{/if}
  </section>
</form>
