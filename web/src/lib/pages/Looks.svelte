<script lang="ts">
  import { api, type Schemas } from '$lib/api/client';
  import { counted, dayMonth } from '$lib/time/format';

  let { pageId }: { pageId: string } = $props();

  let looks = $state.raw<Schemas['LooksAnswer'] | undefined>(undefined);

  $effect(() => {
    void api.GET('/api/pages/{id}/looks', { params: { path: { id: pageId } } }).then((answer) => (looks = answer.data));
  });

  const most = $derived(Math.max(1, ...(looks?.weeks.map((week) => week.looks) ?? [])));
  const parts = $derived(
    (['Morning', 'Afternoon', 'Evening'] as const)
      .map((part) => ({ part, count: looks?.parts[part] ?? 0 }))
      .filter(({ count }) => count > 0),
  );
</script>

{#if looks && looks.weeks.length > 0}
  <section aria-labelledby="looks" class="rounded-2xl border border-line bg-card p-4">
    <h2 id="looks" class="text-part">What guests looked for</h2>
    <ol class="mt-1.5 text-fine">
      {#each looks.weeks as week (week.week)}
        <li class="grid grid-cols-[92px_1fr_auto] items-center gap-2 py-0.5">
          <span>week of {dayMonth(week.week)}</span>
          <span aria-hidden="true" class="h-[9px] bg-lane"
            ><span class="block h-full bg-busy" style:width="{(week.looks / most) * 100}%"></span></span
          >
          <span
            >{counted(week.looks, 'look', 'looks')}{week.inVain > 0
              ? `, ${week.inVain.toLocaleString()} in vain`
              : ''}</span
          >
        </li>
      {/each}
    </ol>
    {#if parts.length > 0}<p class="mt-1.5 text-fine text-muted">
        Chosen from: {parts.map(({ part, count }) => `${part.toLowerCase()} ${count.toLocaleString()}`).join(', ')}.
      </p>{/if}
  </section>
{/if}
