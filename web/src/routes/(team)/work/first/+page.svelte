<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import JoinCalendar from '$lib/calendars/JoinCalendar.svelte';
  import FirstHours from '$lib/first/FirstHours.svelte';
  import FirstPage from '$lib/first/FirstPage.svelte';
  import FirstZone from '$lib/first/FirstZone.svelte';
  import { weekInWords } from '$lib/hours/week';
  import { askAnew } from '$lib/live/anew';
  import { cityOf } from '$lib/time/clock';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import type { PageProps } from './$types';
  import TextButton from '$lib/ui/TextButton.svelte';

  type Step = Schemas['FirstStep'];

  let { data }: PageProps = $props();

  let taken = $state<Step | undefined>(undefined);
  const steps = $derived(data.run.steps);
  const current = $derived(taken ?? steps.find((step) => !step.done)?.step);
  const own = $derived(data.hosts.find((host) => host.id === data.me.hostId));
  const hours = $derived(data.hours.find((one) => one.id === own?.hoursId));
  const page = $derived(data.pages.rows.find((one) => one.state === 'published'));
  const joined = $derived(data.calendars.filter((calendar) => calendar.kind !== 'builtIn').length);
  const titles: Record<Step, string> = {
    zone: 'Your clock',
    hours: 'Your hours',
    calendar: 'Your calendar',
    page: 'Your first page',
  };
  const said = $derived<Record<Step, string>>({
    zone: `${cityOf(data.profile.zone)} time`,
    hours: hours ? weekInWords(hours.document.week) : 'always open',
    calendar: joined > 0 ? counted(joined, 'calendar joined', 'calendars joined') : 'none for now',
    page: page ? page.title : '',
  });

  async function finish(step: Step): Promise<void> {
    await must(api.POST('/api/first-run/steps/{step}', { params: { path: { step } } }));
    taken = undefined;
    await askAnew();
  }

  async function end(): Promise<void> {
    await must(api.POST('/api/first-run/end'));
    await goto('/work/pages', { invalidateAll: true });
  }
</script>

<svelte:head><title>First steps – Loose Lantern</title></svelte:head>

<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <div>
    <h1 class="text-page">First steps</h1>
    <p class="text-muted">You can leave at any step and come back later.</p>
  </div>
  <ActionButton kind={current ? 'quiet' : 'plain'} onclick={() => void end()}>Hide first steps</ActionButton>
</header>

<ol class="max-w-3xl space-y-3">
  {#each steps as { step, done }, i (step)}
    {@const isOpen = current === step}
    <li class="rounded-2xl border bg-card px-5 py-4 {isOpen ? 'border-glow' : 'border-line'}">
      <div class="flex flex-wrap items-baseline gap-x-3">
        <h2 class="text-xl">{i + 1}. {titles[step]}</h2>
        {#if done}<span class="rounded-full bg-sea-tint px-3 py-0.5 text-sm font-semibold text-sea-text">done</span
          ><span class="text-sm text-muted">{said[step]}</span>{/if}
        {#if step === 'page' && page && !isOpen}<a
            class="ml-auto min-h-8 text-sm underline underline-offset-4"
            href="/work/pages/{page.id}">change</a
          >
        {:else if !isOpen}<TextButton
            aria-label="{done ? 'Change' : 'Start'} {titles[step].toLowerCase()}"
            class="ml-auto min-h-8 text-sm"
            onclick={() => (taken = step)}>{done ? 'change' : 'start'}</TextButton
          >{/if}
      </div>
      {#if isOpen}
        <div class="mt-3">
          {#if step === 'zone'}
            <FirstZone profile={data.profile} me={data.me} {hours} ondone={() => finish('zone')} />
          {:else if step === 'hours' && hours}
            <FirstHours {hours} ondone={() => finish('hours')} />
          {:else if step === 'hours'}
            <p class="mb-3">You have no hours of your own, so all time counts as open. Choose some under “Hours”.</p>
            <ActionButton kind="main" onclick={() => void finish('hours')}>Continue</ActionButton>
          {:else if step === 'calendar'}
            <p class="mb-3">
              Busy times of a joined calendar are never offered. Export it as an iCalendar file (.ics), or join it
              online.
            </p>
            <JoinCalendar
              first="file"
              hosts={data.hosts.filter((host) => host.id === data.me.hostId)}
              onjoined={() => void finish('calendar')}
              onclose={() => void finish('calendar')}
              leave="Continue without one"
            />
          {:else if data.desks[0]}
            <FirstPage me={data.me} desk={data.desks[0]} usual={data.usual.now} ondone={() => finish('page')} />
          {/if}
        </div>
      {/if}
    </li>
  {/each}
</ol>
{#if !current && page}
  <div class="mt-5 max-w-3xl rounded-2xl border border-line bg-card p-5" data-test="first-done">
    <h2 class="text-xl">Guests can book you now</h2>
    <p class="mt-1 mb-3">
      Send them this address: <a
        class="font-semibold underline underline-offset-4"
        href={page.path}
        target="_blank"
        rel="noopener">{page.path}</a
      >
    </p>
    <ActionButton kind="main" onclick={() => void end()}>Go to your pages</ActionButton>
  </div>
{/if}
