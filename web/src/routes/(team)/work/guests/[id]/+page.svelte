<script lang="ts">
  import { goto } from '$app/navigation';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import EditGuest from '$lib/guests/EditGuest.svelte';
  import EraseGuest from '$lib/guests/EraseGuest.svelte';
  import GuestFacts from '$lib/guests/GuestFacts.svelte';
  import GuestHistory from '$lib/guests/GuestHistory.svelte';
  import SaidBeside from '$lib/guests/SaidBeside.svelte';
  import SameAs from '$lib/guests/SameAs.svelte';
  import { askAnew } from '$lib/live/anew';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const guest = $derived(data.guest);
  const mayChange = $derived(data.me.isCoordinator);
  let editing = $state(false);
  const looking = new Attempt();
  let erasing = $state.raw<Schemas['ErasingView'] | undefined>(undefined);

  const lookAtErasing = (): Promise<boolean> =>
    looking.run(async () => {
      erasing = await must(api.GET('/api/guests/{id}/erasing', { params: { path: { id: guest.id } } }));
    });
  const newLink = $derived.by(() => {
    const query = new URLSearchParams({ name: guest.name });
    if (guest.emails[0]) query.set('email', guest.emails[0]);
    if (guest.zone) query.set('zone', guest.zone);
    if (guest.language) query.set('language', guest.language);
    return `/work/links/new?${query}`;
  });
</script>

<svelte:head><title>{guest.name} – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/guests">Guests</a></p>
<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <h1 class="text-page wrap-anywhere">{guest.name}</h1>
  {#if mayChange}
    <div class="flex flex-wrap gap-3">
      <ActionButton disabled={editing} onclick={() => (editing = true)}>Edit</ActionButton>
      <ActionButton href="/work/guests/{guest.id}/write">Write</ActionButton>
      <ActionButton kind="main" href={newLink}>New link</ActionButton>
    </div>
  {/if}
</header>

{#key guest.id}
  <div class="grid items-start gap-5 lg:grid-cols-[minmax(0,440px)_minmax(0,1fr)]">
    <div class="space-y-5">
      {#if editing}
        <EditGuest
          saved={guest}
          people={data.people}
          fields={data.fields}
          onsaved={() => {
            editing = false;
            void askAnew();
          }}
          oncancel={() => (editing = false)}
        />
      {:else}
        <section class="rounded-2xl border border-line bg-card p-5" aria-label="Details">
          <GuestFacts {guest} fields={data.fields} zone={data.me.zone} now={data.history.now} />
          {#if mayChange}<p class="mt-3 flex flex-wrap gap-x-5 border-t border-line pt-3 text-fine text-muted">
              <a
                class="inline-flex min-h-6 items-center underline underline-offset-4"
                download
                href="/api/guests/{guest.id}/data.json">Download all data of this guest</a
              >
              {#if data.me.isOwner}<TextButton
                  class="min-h-6"
                  disabled={looking.busy}
                  onclick={() => void lookAtErasing()}>Erase this guest</TextButton
                >{/if}
            </p>{/if}
          {#if looking.problem}<ProblemNote problem={looking.problem} />{/if}
        </section>
      {/if}
      <SaidBeside {guest} fields={data.fields} zone={data.me.zone} {mayChange} />
      <SameAs {guest} fields={data.fields} zone={data.me.zone} {mayChange} />
    </div>
    <GuestHistory {guest} history={data.history} me={data.me} />
  </div>
{/key}

{#if erasing}
  <EraseGuest
    id={guest.id}
    look={erasing}
    zone={data.me.zone}
    onerased={() => void goto('/work/guests')}
    onclose={() => (erasing = undefined)}
  />
{/if}
