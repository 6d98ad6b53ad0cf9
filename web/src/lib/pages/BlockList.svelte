<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { dayMonth, lengthOf, shortWeekday } from '$lib/time/format';

  let { blocks }: { blocks: Schemas['BlocksForm'] } = $props();

  function often(block: Schemas['BlockForm']): string {
    if (block.rule === null) return '';
    const until = /UNTIL=(\d{4})(\d{2})(\d{2})/.exec(block.rule);
    const weekly = block.rule.startsWith('FREQ=WEEKLY') ? ', every week' : `, by the rule ${block.rule}`;
    const without = block.without.length > 0 ? `, not on ${block.without.map(dayMonth).join(', ')}` : '';
    return `${weekly}${until ? ` until ${dayMonth(`${until[1]}-${until[2]}-${until[3]}`)}` : ''}${without}`;
  }
</script>

<p>
  Office hours, {blocks.whole ? 'each offered whole as one opening' : 'cut into openings from their start'}, painted on
  the <a class="underline underline-offset-4" href="/work/board">board</a>:
</p>
<ul class="text-sm text-muted">
  {#each blocks.list as block, i (i)}
    <li>
      {shortWeekday(block.start.slice(0, 10))}
      {dayMonth(block.start.slice(0, 10))}, {block.start.slice(11, 16)}, {lengthOf(block.length)}{often(block)}
    </li>
  {/each}
</ul>
