<script lang="ts">
  import { Checkbox, Radio } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { loadInWords } from './load';

  interface Props {
    session: string;
    hosts: Schemas['SeatedHost'][];
    /** Who is told with the hosts; empty where nobody else can be. */
    guests: string;
    mayChange: boolean;
    onchanged: (what: string) => void;
  }

  let { session, hosts, guests, mayChange, onchanged }: Props = $props();

  /** Whose seat is given; `null` where one more host is added. */
  let seat = $state.raw<Schemas['SeatedHost'] | null | undefined>(undefined);
  let takers = $state.raw<Schemas['Taker'][]>([]);
  let taker = $state('');
  let tellsGuests = $state(true);
  const looking = new Attempt();
  const changing = new Attempt();
  const path = $derived({ id: session });
  // A room takes a room's place, and a person a person's.
  const offered = $derived(
    seat ? takers.filter((one) => (one.kind === 'person') === (seat?.kind === 'person')) : takers,
  );

  async function look(at: Schemas['SeatedHost'] | null): Promise<void> {
    [seat, taker, changing.problem] = [at, '', undefined];
    await looking.run(async () => (takers = await must(api.GET('/api/sessions/{id}/hosts', { params: { path } }))));
  }

  async function change(from: string | null, to: string | null, what: string): Promise<void> {
    const done = await changing.run(() =>
      must(
        api.POST('/api/sessions/{id}/hosts', {
          params: { path },
          body: { from, to, tellGuests: tellsGuests && guests !== '' },
        }),
      ),
    );
    if (done) {
      seat = undefined;
      onchanged(what);
    } else if (changing.problem?.status === 409 && seat !== undefined) {
      const { problem } = changing;
      await look(seat);
      changing.problem = problem;
    }
    await askAnew();
  }

  function submit(event: SubmitEvent): void {
    event.preventDefault();
    const found = offered.find((one) => one.id === taker);
    if (!found || seat === undefined) {
      changing.refuse({ to: ['Choose somebody first.'] });
      return;
    }
    void change(seat?.id ?? null, found.id, seat ? `${found.name} has it now.` : `${found.name} comes along.`);
  }
</script>

<ul>
  {#each hosts as host (host.id)}
    <li class="flex flex-wrap items-center gap-x-3">
      {host.name}
      {#if mayChange}
        <TextButton
          class="min-h-6 text-fine text-muted"
          aria-label="Give to another: {host.name}"
          onclick={() => void look(host)}>Give to another</TextButton
        >
        {#if host.isAdded}<TextButton
            class="min-h-6 text-fine text-muted"
            disabled={changing.busy}
            onclick={() => void change(host.id, null, `${host.name} is free again.`)}
            aria-label="Remove {host.name}">Remove</TextButton
          >{/if}
      {/if}
    </li>
  {/each}
</ul>
{#if mayChange && seat === undefined}
  <TextButton class="min-h-6 text-fine text-muted" onclick={() => void look(null)}>+ host</TextButton>
{/if}
{#if changing.problem && !changing.problem.errors}<div class="mt-2">
    <ProblemNote problem={changing.problem} />
  </div>{/if}
{#if seat !== undefined}
  <form
    novalidate
    class="mt-2 rounded-xl border border-line p-3.5"
    aria-label={seat ? `Who takes it from ${seat.name}` : 'Who comes along'}
    onsubmit={submit}
  >
    {#if looking.problem}
      <ProblemNote problem={looking.problem} />
    {:else if looking.busy && takers.length === 0}
      <p class="text-muted">Looking who is free …</p>
    {:else if offered.length === 0}
      <p class="text-muted">
        Nobody else is free then whose time you may book. Move the booking, or ask a colleague to let you book their
        time.
      </p>
    {:else}
      <p class="mb-1.5 text-muted">{seat ? `Instead of ${seat.name}` : 'Beside the others'}, free then:</p>
      <ul class="max-h-64 overflow-y-auto" id="to">
        {#each offered as one (one.id)}
          <li class="py-0.5">
            <Radio name="taker" value={one.id} bind:group={taker}
              ><span class="ml-1">{one.name}</span><span class="ml-2 text-fine text-muted">{loadInWords(one)}</span
              ></Radio
            >
          </li>
        {/each}
      </ul>
      {#if changing.problem?.errors}<p class="mt-1 text-brick" role="alert">
          {Object.values(changing.problem.errors).flat().join(' ')}
        </p>{/if}
      {#if guests !== ''}<div class="mt-2">
          <Checkbox bind:checked={tellsGuests}>Tell {guests}</Checkbox>
        </div>{/if}
    {/if}
    <div class="mt-3 flex flex-wrap gap-3">
      {#if offered.length > 0}<ActionButton kind="main" type="submit" disabled={changing.busy || looking.busy}
          >{seat ? 'Give' : 'Add'}</ActionButton
        >{/if}
      <ActionButton kind="quiet" onclick={() => (seat = undefined)}>Cancel</ActionButton>
    </div>
  </form>
{/if}
