<script lang="ts">
  import { Temporal } from 'temporal-polyfill';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { counted, dayMonth, lengthOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ListNav from '$lib/ui/ListNav.svelte';
  import type { ListPlace } from '$lib/ui/listPlace';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  let { load: current }: { load: Schemas['LoadAnswer'] } = $props();

  const WEEKS = 6;
  // Another period than the one that came with the screen.
  let other = $state.raw<Schemas['LoadAnswer'] | undefined>(undefined);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  const load = $derived(other ?? current);

  // Other weeks are of the same hosts.
  let place: ListPlace = {};

  async function read(from: string, next: ListPlace): Promise<void> {
    place = next;
    await attempt.run(async () => {
      other = await must(api.GET('/api/load', { params: { query: { from, weeks: WEEKS, ...place } } }));
    });
  }

  const move = (by: number): Promise<void> =>
    read(Temporal.PlainDate.from(load.from).add({ weeks: by }).toString(), place);

  const weeks = $derived(load.hosts[0]?.weeks.map((week) => week.monday) ?? []);
  const most = $derived(Math.max(1, ...load.hosts.flatMap((host) => host.weeks.map((week) => week.sessions))));
</script>

<section aria-labelledby="load" class="mt-6">
  <header class="mb-1.5 flex flex-wrap items-center gap-3">
    <h2 id="load" class="text-lg">Load</h2>
    <p class="text-muted">{dayMonth(load.from)} to {dayMonth(load.to)}</p>
    <span class="ml-auto flex gap-2"
      ><ActionButton onclick={() => void move(-WEEKS)}>Earlier weeks</ActionButton><ActionButton
        onclick={() => void move(WEEKS)}>Later weeks</ActionButton
      ></span
    >
  </header>
  {#if problem}<div class="mb-2"><ProblemNote {problem} /></div>{/if}
  <!-- A keyboard must be able to scroll it where it is wider than the screen. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="overflow-x-auto rounded-2xl border border-line bg-card px-4 py-2"
    role="region"
    aria-label="Load by week"
    tabindex="0"
  >
    <table class="w-full min-w-[640px] text-sm">
      <caption class="sr-only">Sessions of each host, week by week</caption>
      <thead>
        <tr class="text-muted">
          <th scope="col" class="py-1.5 text-left font-normal">Host</th>
          <th scope="col" class="px-2 text-right font-normal">Share</th>
          {#each weeks as monday (monday)}<th scope="col" class="px-2 text-left font-normal">from {dayMonth(monday)}</th
            >{/each}
          <th scope="col" class="px-2 text-right font-normal">Total</th>
        </tr>
      </thead>
      <tbody>
        {#each load.hosts as host (host.hostId)}
          <tr class="border-t border-line">
            <th scope="row" class="py-1.5 text-left font-normal"
              >{host.name}{host.dailyCap === null ? '' : `, ${host.dailyCap} a day`}{host.weeklyCap === null
                ? ''
                : `, ${host.weeklyCap} a week`}</th
            >
            <td class="px-2 text-right text-muted"
              >{host.kind === 'person' ? `${Math.round(host.share * 100)} %` : ''}</td
            >
            {#each host.weeks as week (week.monday)}
              {@const isFull = host.weeklyCap !== null && week.sessions >= host.weeklyCap}
              <td class="px-2">
                <span
                  class="flex items-center gap-1.5"
                  title="{counted(week.sessions, 'session', 'sessions')}, {lengthOf(week.minutes)}{week.away > 0
                    ? `, away ${counted(week.away, 'day', 'days')}`
                    : ''}{isFull ? ', cap reached' : ''}"
                >
                  <span aria-hidden="true" class="block h-2.5 w-14 bg-lane"
                    ><span class="block h-full bg-sea" style="width: {(week.sessions / most) * 100}%"></span></span
                  >
                  <span class={isFull ? 'font-bold' : ''}
                    >{week.sessions}{#if isFull}<span class="sr-only">, cap reached</span>{/if}</span
                  >
                  {#if week.away > 0}<span class="text-muted">away {week.away}</span>{/if}
                </span>
              </td>
            {/each}
            <td class="px-2 text-right whitespace-nowrap">{host.sessions}, {lengthOf(host.minutes)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <ListNav label="More hosts" list={load} shown={load.hosts.length} onplace={(next) => void read(load.from, next)} />
</section>
