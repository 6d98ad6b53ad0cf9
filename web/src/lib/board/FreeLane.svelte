<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { placeOn, type Axis } from '$lib/lanes/spans';
  import { longDate, timeOf } from '$lib/time/format';

  interface Props {
    runs: Schemas['FreeRun'][];
    together: 'all' | 'any';
    date: string;
    axis: Axis;
    zone: string;
  }

  let { runs, together, date, axis, zone }: Props = $props();

  const shown = $derived(runs.filter((run) => run.toMinute > axis.from && run.fromMinute < axis.to));
</script>

<tr>
  <th scope="row" class="truncate pr-2 text-left text-fine font-semibold">{together} free</th>
  <td class="relative h-[23px] p-0">
    <ul
      class="absolute inset-x-0 inset-y-[6px] bg-lane"
      aria-label="{together === 'all' ? 'All' : 'Any'} free, {longDate(date)}"
    >
      {#each shown as run (run.start)}
        {@const said = `${together === 'all' ? 'all' : 'at least one'} free, ${timeOf(run.start, zone)} to ${timeOf(run.end, zone)}`}
        <li class="absolute inset-y-0 bg-glow-bar" style={placeOn(axis, run.fromMinute, run.toMinute)} title={said}>
          <span class="sr-only">{said}</span>
        </li>
      {/each}
    </ul>
  </td>
</tr>
