<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { effectInWords } from '$lib/hours/changes';
  import { askAnew } from '$lib/live/anew';
  import RecordList from '$lib/record/RecordList.svelte';
  import HostModal from '$lib/team/HostModal.svelte';
  import Invitations from '$lib/team/Invitations.svelte';
  import LeaveModal from '$lib/team/LeaveModal.svelte';
  import LoadTable from '$lib/team/LoadTable.svelte';
  import Places from '$lib/team/Places.svelte';
  import RolesModal from '$lib/team/RolesModal.svelte';
  import WorkspaceSection from '$lib/team/WorkspaceSection.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Portrait from '$lib/ui/Portrait.svelte';
  import type { PageProps } from './$types';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { data }: PageProps = $props();

  type Person = Schemas['PersonView'];

  let inviting = $state(false);
  let roles = $state.raw<Person | undefined>(undefined);
  let leaving = $state.raw<Person | undefined>(undefined);
  let told = $state.raw<string[]>([]);
  let host = $state.raw<Schemas['HostView'] | undefined>(undefined);

  const hostOf = (person: Person): Schemas['HostView'] | undefined =>
    data.hosts.find((one) => one.id === person.hostId);
  const rolesOf = (person: Person): string[] =>
    [person.isOwner ? 'owner' : '', person.isCoordinator ? 'coordinator' : '', person.hostId ? 'host' : ''].filter(
      (role) => role !== '',
    );

  function hostSaved(effects: Schemas['PageEffect'][]): void {
    told = effects.map(effectInWords);
    done();
  }

  function done(): void {
    roles = undefined;
    leaving = undefined;
    host = undefined;
    void askAnew();
  }
</script>

<svelte:head><title>Team – Loose Lantern</title></svelte:head>

<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <h1 class="text-page">Team</h1>
  {#if data.me.isOwner && !inviting}<ActionButton kind="main" onclick={() => (inviting = true)}
      >Invite someone</ActionButton
    >{/if}
</header>

{#if data.me.isOwner}<Invitations
    invitations={data.invitations}
    zone={data.me.zone}
    bind:inviting
    onchanged={() => void askAnew()}
  />{/if}

<div aria-live="polite">
  {#if told.length > 0}<p class="mb-3 rounded-lg border-l-4 border-glow bg-glow-tint px-4 py-2 text-on-tint">
      {told.join('; ')}.
    </p>{/if}
</div>
<section aria-labelledby="people">
  <h2 id="people" class="mb-1.5 text-lg">People</h2>
  <ul class="overflow-hidden rounded-2xl border border-line bg-card">
    {#each data.people as person (person.id)}
      {@const own = hostOf(person)}
      <li
        class="grid items-center gap-x-4 gap-y-1 border-t border-line px-4 py-2.5 first:border-t-0 max-md:grid-cols-[40px_1fr] md:grid-cols-[36px_210px_150px_1fr_auto]"
      >
        <Portrait {person} />
        <div class="min-w-0">
          <p class="font-semibold">{person.name}{person.id === data.me.id ? ' (you)' : ''}</p>
          <p class="text-sm text-muted">{person.line === '' ? person.email : person.line}</p>
        </div>
        <p class="text-sm max-md:col-start-2">
          {rolesOf(person).join(', ')}{person.secondFactor ? '; second factor' : ''}
        </p>
        <p class="text-sm text-muted max-md:col-start-2">
          {#if own}
            {data.hours.find((hours) => hours.id === own.hoursId)?.name ?? 'always open'}{own.weight === 1
              ? ''
              : `; weight ${own.weight}`}{own.dailyCap === null
              ? ''
              : `; at most ${own.dailyCap} a day`}{own.weeklyCap === null ? '' : `; at most ${own.weeklyCap} a week`}
            {#if data.me.isCoordinator && person.id !== data.me.id}<span
                class="block {own.mayOffer ? 'text-sea-text' : ''}"
                >{own.mayOffer ? 'lets you act for them' : 'does not let you act for them'}</span
              >{/if}
          {/if}
        </p>
        <span class="flex flex-wrap justify-end gap-x-4 text-sm max-md:col-start-2 max-md:justify-start">
          {#if own && data.me.isCoordinator}<TextButton
              aria-label="Hours and caps of {person.name}"
              class="min-h-8"
              onclick={() => (host = own)}>Hours and caps</TextButton
            >{/if}
          {#if data.me.isOwner}
            <TextButton aria-label="Roles of {person.name}" class="min-h-8" onclick={() => (roles = person)}
              >Roles</TextButton
            >
            <TextButton aria-label="Remove from team: {person.name}" class="min-h-8" onclick={() => (leaving = person)}
              >Remove from team</TextButton
            >
          {/if}
        </span>
      </li>
    {/each}
  </ul>
</section>

<Places
  hosts={data.hosts.filter((one) => one.kind !== 'person')}
  hours={data.hours}
  zone={data.me.workspaceZone}
  mayEdit={data.me.isCoordinator}
  onedit={(one) => (host = one)}
  onchanged={() => void askAnew()}
/>

<LoadTable load={data.load} />
{#if data.me.isOwner}<WorkspaceSection me={data.me} onchanged={() => void askAnew()} />{/if}

{#if data.record.length > 0}
  <section aria-labelledby="record" class="mt-6">
    <h2 id="record" class="mb-1.5 text-lg">
      Record <a class="ml-2 font-sans text-fine font-normal underline underline-offset-4" href="/work/record"
        >All of it</a
      >
    </h2>
    <!-- A keyboard must be able to scroll it. -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      class="max-h-72 overflow-y-auto rounded-2xl border border-line bg-card px-4 py-2"
      role="region"
      aria-label="Entries of the record"
      tabindex="0"
    >
      <RecordList lines={data.record} zone={data.me.zone} />
    </div>
  </section>
{/if}

{#if roles}<RolesModal person={roles} ondone={done} onclose={() => (roles = undefined)} />{/if}
{#if leaving}<LeaveModal
    person={leaving}
    hosts={data.hosts}
    zone={data.me.zone}
    ondone={done}
    onclose={() => (leaving = undefined)}
  />{/if}
{#if host}<HostModal
    {host}
    hours={data.hours}
    own={data.me.hostId}
    ondone={hostSaved}
    onclose={() => (host = undefined)}
  />{/if}
