<script lang="ts">
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import StateBadge from '$lib/ui/StateBadge.svelte';
  import { lineUpInWords } from './form';
  import { dayName, lengthOf } from '$lib/time/format';

  let { page }: { page: Schemas['PageRow'] } = $props();

  // Counted after the list stands, and anew whenever the list is loaded again; until then the last count stays.
  let supply = $state.raw<Schemas['SupplyAnswer'] | undefined>(undefined);
  let failed = $state(false);
  $effect(() => {
    let current = true;
    must(api.GET('/api/pages/{id}/supply', { params: { path: { id: page.id } } })).then(
      (answer) => {
        if (current) [supply, failed] = [answer, false];
      },
      () => {
        if (current) failed = true;
      },
    );
    return () => (current = false);
  });
  const most = $derived(Math.max(1, ...(supply?.days.map((day) => day.openings.length) ?? [])));
</script>

<li
  class="grid items-center gap-x-5 gap-y-1 border-t border-line px-4 py-3 first:border-t-0 md:grid-cols-[minmax(0,1fr)_190px_250px_104px]"
>
  <div class="min-w-0">
    <a
      href="/work/pages/{page.id}"
      class="font-heading text-part font-semibold underline decoration-line-strong underline-offset-4 hover:decoration-ink"
      >{page.name || page.title}</a
    >
    <p class="truncate text-sm text-muted">
      {page.path}{page.kind ? `, ${page.kind}` : ''}{page.hasDraft ? ', changes wait to be published' : ''}
    </p>
  </div>
  <p class="text-sm">
    {lineUpInWords(page.seats)}<br /><span class="text-muted">{page.durations.map(lengthOf).join(' or ')}</span>
  </p>
  <div class="flex items-end gap-3">
    <div class="flex h-7 items-end gap-[3px]" aria-hidden="true">
      {#each supply?.days ?? [] as day (day.date)}
        <span
          title="{dayName(day.date)}: {day.openings.length}"
          class="w-1.5 rounded-t-[2px] {day.openings.length > 0 ? 'bg-glow-bar' : 'bg-line-strong'}"
          style:height="{day.openings.length === 0 ? 2 : Math.max(4, Math.round((day.openings.length / most) * 28))}px"
        ></span>
      {/each}
    </div>
    <p class="min-w-24 text-sm whitespace-nowrap">
      {#if supply}<strong>{supply.total}</strong> <span class="text-muted">in two weeks</span>{:else}<span
          class="text-muted">{failed ? 'can’t be counted' : '…'}</span
        >{/if}
    </p>
  </div>
  <div class="md:text-right"><StateBadge state={page.state} /></div>
</li>
