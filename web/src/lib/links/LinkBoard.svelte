<script lang="ts">
  import { Temporal } from 'temporal-polyfill';
  import { api, type Schemas } from '$lib/api/client';
  import { must, problemOf, type Problem } from '$lib/api/problem';
  import Board from '$lib/board/Board.svelte';
  import type { BoardSpan } from '$lib/board/pieces';
  import { watchChanges } from '$lib/live/changes';
  import type { DarkQuestion } from '$lib/supply/DarkQuestion.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { dateIn, dayMonth } from '$lib/time/format';
  import { Skeleton } from 'flowbite-svelte';
  import { piecesOfLink, placeOf, startsWithin, readKey, startAt, worthShowing } from './boardPieces';
  import type { LinkEditing } from './LinkEditing.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    link: LinkEditing;
    dark: DarkQuestion;
    today: string;
    mayEdit: boolean;
    /** Something was picked or painted. */
    onchanged: () => void;
  }

  let { link, dark, today, mayEdit, onchanged }: Props = $props();

  const DAYS = 28;
  const ROWS = 7;
  // Where the board begins is the reader's from then on.
  // svelte-ignore state_referenced_locally
  let from = $state(today);
  let board = $state.raw<Schemas['BoardAnswer'] | undefined>(undefined);
  let problem = $state.raw<Problem | undefined>(undefined);
  let asked = 0;

  const zone = $derived(link.form.times.zone);
  const hostIds = $derived(link.hostIds);
  const offered = $derived(
    new Set(
      [
        ...(link.supply?.openings ?? []).map((opening) => opening.start),
        ...(link.offer.by === 'picked' ? link.offer.picked : []),
      ].map((start) => dateIn(start, zone)),
    ),
  );
  const dates = $derived(board ? worthShowing(board, offered).slice(0, ROWS) : []);
  const shown = $derived(
    board && {
      ...board,
      days: board.days
        .filter((day) => dates.includes(day.date))
        .map((day) => ({ ...day, lanes: day.lanes.map(withoutOwn) })),
    },
  );
  // Of several who could take a seat only one holds a time.
  const holders = $derived(
    new Map(
      (link.saved?.holds ?? []).map((hold) => [
        hold.start,
        (board?.hosts ?? []).filter((host) => hold.hosts.includes(host.name)).map((host) => host.id),
      ]),
    ),
  );
  const pieces = $derived(
    piecesOfLink({
      offer: link.offer,
      minutes: link.minutes,
      zone,
      hostIds,
      dates,
      openings: link.supply?.openings ?? [],
      missed: link.missed,
      held: holders,
      servedBy: link.servedBy,
      wishes: link.saved?.wishes ?? [],
    }),
  );

  /** What this link offers or holds itself stands there picked already. */
  function withoutOwn(lane: Schemas['BoardLane']): Schemas['BoardLane'] {
    return { ...lane, bars: lane.bars.filter((bar) => bar.linkId === null || bar.linkId !== link.id) };
  }

  async function load(): Promise<void> {
    const [turn, ids] = [++asked, hostIds];
    if (ids.length === 0) return;
    try {
      const answer = await must(api.GET('/api/board', { params: { query: { from, days: DAYS, host: ids, zone } } }));
      // The lanes in the order of the line-up.
      if (turn === asked)
        [board, problem] = [
          { ...answer, hosts: ids.flatMap((id) => answer.hosts.find((host) => host.id === id) ?? []) },
          undefined,
        ];
    } catch (thrown) {
      if (turn === asked) problem = problemOf(thrown);
    }
  }

  $effect(() => {
    void [from, zone, hostIds.join(), link.saved];
    void load();
  });
  $effect(() => watchChanges('/api/changes', () => void load()));

  /** A press picks one time, and a drag as many as fit one after the other; a painted stretch is kept as it is. */
  function paint(span: BoardSpan): void {
    onchanged();
    if (link.offer.by === 'painted') link.paint(span.date, span.from, span.to);
    else if (link.offer.by === 'picked')
      for (const minute of startsWithin(span, link.minutes)) link.pick(startAt(span.date, minute, zone));
  }

  function change(key: string, span: BoardSpan): void {
    const { kind, rest } = readKey(key);
    if (kind === 'pick') link.movePick(rest, span.date, span.from);
    else if (kind === 'paint') {
      const [at = '0', date = span.date] = rest.split(':');
      link.movePaint(Number(at), date, span.date, span.from, span.to);
    }
  }

  function erase(key: string): void {
    const { kind, rest } = readKey(key);
    if (kind === 'pick') link.unpick(rest);
    else if (kind === 'paint') link.erasePaint(Number(rest.split(':')[0]));
  }

  /** A pick that is not open tells why; what the guest wishes is taken over. */
  function pick(key: string): void {
    const { kind, rest } = readKey(key);
    if (kind === 'pick' && link.missed.has(rest)) {
      const place = placeOf(rest, link.minutes, zone);
      void dark.ask({ date: place.date, fromMinute: place.from, toMinute: place.to, isWhole: false });
    } else if (kind === 'wish') {
      const wish = link.saved?.wishes.find((one) => one.id === rest);
      if (wish && mayEdit) {
        link.setOffer({ by: 'picked' });
        link.pick(wish.start);
      }
    }
  }

  function turn(days: number): void {
    const last = dates.at(-1);
    const next =
      days > 0 && last
        ? Temporal.PlainDate.from(last).add({ days: 1 })
        : Temporal.PlainDate.from(from).subtract({ days: 9 });
    from = next.toString() < today ? today : next.toString();
  }
</script>

{#if problem}<ProblemNote {problem} />{/if}
{#if shown && dates.length > 0}
  <Board
    board={shown}
    hosts={shown.hosts}
    {today}
    nightOf={link.form.guestZone && link.form.guestZone !== zone ? link.form.guestZone : undefined}
    {pieces}
    length={link.offer.by === 'picked' ? link.minutes : undefined}
    paints={link.offer.by === 'picked' ? 'times' : 'stretches'}
    mayPaint={() => true}
    {...mayEdit && link.offer.by !== 'free' ? { onpaint: paint, onchange: change, onerase: erase } : {}}
    onpick={pick}
    beneath={(date) => {
      const count = (link.supply?.openings ?? []).filter((opening) => dateIn(opening.start, zone) === date).length;
      return count === 0 ? '' : `${count} offered`;
    }}
    onday={(date) =>
      void dark.ask({ date, fromMinute: link.offer.fromMinute, toMinute: link.offer.toMinute, isWhole: true })}
  />
  <nav aria-label="Days of the board" class="mt-1.5 flex items-center gap-2 text-sm text-muted">
    <ActionButton class="py-1" disabled={from === today} onclick={() => turn(-1)}>Earlier</ActionButton>
    <ActionButton class="py-1" onclick={() => turn(1)}>Later</ActionButton>
    <span>{dayMonth(dates[0] ?? today)} to {dayMonth(dates.at(-1) ?? today)}</span>
  </nav>
{:else if board}
  <p class="rounded-2xl border border-line bg-card p-6 text-muted">
    Nobody in the line-up is open in the four weeks from {dayMonth(from)}.
    <TextButton onclick={() => (from = Temporal.PlainDate.from(from).add({ days: DAYS }).toString())}>Later</TextButton>
  </p>
{:else if hostIds.length === 0}
  <p class="rounded-2xl border border-line bg-card p-6 text-muted">
    Choose who takes part; then the board shows when they are free.
  </p>
{:else if !problem}
  <div aria-label="Loading the board"><Skeleton size="2xl" /></div>
{/if}
