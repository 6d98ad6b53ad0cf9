<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { dateIn, dayMonth, timeOf } from '$lib/time/format';

  let { lines, zone }: { lines: Schemas['RecordLine'][]; zone: string } = $props();
</script>

<ul class="text-sm">
  {#each lines as line, i (i)}
    <li class="grid grid-cols-[104px_1fr] gap-x-3 border-t border-line py-1.5 first:border-t-0">
      <span class="text-muted">{dayMonth(dateIn(line.at, zone))}, {timeOf(line.at, zone)}</span>
      <span>{line.person}{line.for.length > 0 ? `, for ${line.for.join(', ')}` : ''}: {line.what}</span>
    </li>
  {/each}
</ul>
