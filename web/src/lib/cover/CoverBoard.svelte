<script lang="ts">
  import { goto } from '$app/navigation';
  import { untrack } from 'svelte';
  import { Looking } from '$lib/api/Looking.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import Board from '$lib/board/Board.svelte';
  import { dateIn } from '$lib/time/format';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import { asPlanned } from './plan';

  interface Props {
    lines: Schemas['CoverLineView'][];
    /** Whose lanes are shown. */
    hosts: string[];
    /** The reader's zone. */
    zone: string;
    today: string;
  }

  let { lines, hosts, zone, today }: Props = $props();

  const MOST_DAYS = 56;
  let board = $state.raw<Schemas['BoardAnswer'] | undefined>(undefined);
  let which = $state<'now' | 'then'>('then');
  const looking = new Looking();
  const dates = $derived([...new Set(lines.map((line) => dateIn(line.start, zone)))].sort());
  const asked = $derived(JSON.stringify([dates[0], dates.at(-1), hosts]));
  // Only days on which something changes.
  const shown = $derived.by(() => {
    if (!board) return undefined;
    const whole = which === 'now' ? board : asPlanned(board, lines);
    return { ...whole, days: whole.days.filter((day) => dates.includes(day.date)) };
  });

  $effect(() => {
    const [from, to, host] = JSON.parse(asked) as [string, string, string[]];
    const days = Math.min(MOST_DAYS, Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000) + 1);
    untrack(() => {
      void looking.look(async () => {
        board = await must(api.GET('/api/board', { params: { query: { from, days, host, zone } } }));
      });
    });
  });
</script>

<div class="mb-2 flex flex-wrap items-center justify-between gap-3">
  <h2 class="text-lg">On the board</h2>
  <Segments
    label="Which board"
    options={[
      { value: 'now', text: 'As it is' },
      { value: 'then', text: 'As planned' },
    ]}
    value={which}
    onchoose={(chosen) => (which = chosen)}
  />
</div>
{#if looking.problem}<ProblemNote problem={looking.problem} />{/if}
{#if shown}<Board board={shown} hosts={shown.hosts} {today} onlead={(path) => void goto(path)} />{/if}
