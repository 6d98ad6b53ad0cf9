<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { ruleInWords } from '$lib/board/repeats';
  import { dayMonth, lengthOf, shortWeekday } from '$lib/time/format';

  let { blocks }: { blocks: Schemas['BlocksForm'] } = $props();

  function often(block: Schemas['BlockForm']): string {
    const without = block.without.length > 0 ? `, not on ${block.without.map(dayMonth).join(', ')}` : '';
    return block.rule === null ? '' : `${ruleInWords(block.rule)}${without}`;
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
