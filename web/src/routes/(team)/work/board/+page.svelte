<script lang="ts">
  import { afterNavigate, goto } from '$app/navigation';
  import { Input, Select, Toast } from 'flowbite-svelte';
  import { Temporal } from 'temporal-polyfill';
  import type { Schemas } from '$lib/api/client';
  import Board from '$lib/board/Board.svelte';
  import { BoardEditing } from '$lib/board/BoardEditing.svelte';
  import { waitingOn } from '$lib/board/bars';
  import { comingOf, piecesOf } from '$lib/board/blocks';
  import { lanesIn, putLanes } from '$lib/board/lanes';
  import { bookingAt, openingAt, placeOf } from '$lib/board/moving';
  import OpenedBooking from '$lib/board/OpenedBooking.svelte';
  import type { BoardPiece, BoardSpan } from '$lib/board/pieces';
  import NewBlock from '$lib/board/NewBlock.svelte';
  import { askAnew } from '$lib/live/anew';
  import { cityOf } from '$lib/time/clock';
  import OutsideNote from '$lib/calendars/OutsideNote.svelte';
  import { dateIn, dayMonth, dayName, timeOf } from '$lib/time/format';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { PageProps } from './$types';
  import TextButton from '$lib/ui/TextButton.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';

  let { data }: PageProps = $props();

  const last = $derived(
    Temporal.PlainDate.from(data.from)
      .add({ days: data.weeks * 7 - 1 })
      .toString(),
  );
  const pieces = $derived(data.board && data.me.isCoordinator ? piecesOf(data.board) : []);
  // Those chosen since the board last came, so that quick presses don't undo one another.
  let choosing = $state.raw<string[] | undefined>(undefined);
  const shown = $derived(choosing ?? data.shown);
  afterNavigate(() => (choosing = undefined));
  let painted = $state.raw<BoardSpan | undefined>(undefined);
  const paintedHost = $derived(data.board?.hosts.find((host) => host.id === painted?.hostId));
  const editing = new BoardEditing(
    () => data.board ?? { now: data.me.now, zone: data.me.zone, hosts: [], days: [] },
    () => askAnew(),
  );

  interface Shown {
    from: string;
    weeks: number;
    together: string;
    beside: string;
    lanes: string[];
  }

  function show(next: Partial<Shown>): void {
    const all: Shown = {
      from: data.from,
      weeks: data.weeks,
      together: data.together ?? '',
      beside: data.beside ?? '',
      lanes: shown,
      ...next,
    };
    const query = new URLSearchParams();
    if (all.from !== data.today) query.set('from', all.from);
    if (all.weeks !== 2) query.set('weeks', String(all.weeks));
    if (all.together !== '') query.set('together', all.together);
    if (all.beside !== '') query.set('beside', all.beside);
    putLanes(query, data.hosts, all.lanes);
    void goto(query.size > 0 ? `?${query}` : '?', { replaceState: true, keepFocus: true, noScroll: true });
  }

  function move(weeks: number): void {
    show({ from: Temporal.PlainDate.from(data.from).add({ weeks }).toString() });
  }

  function choose(lanes: string[]): void {
    choosing = lanes;
    show({ lanes });
  }

  function toggle(host: string): void {
    choose(shown.includes(host) ? shown.filter((id) => id !== host) : [...shown, host]);
  }

  // Of many hosts not all come back, but those it begins with.
  const back = $derived(data.isMany ? 'others' : 'all');

  function isAlone(host: string): boolean {
    return data.hosts.length > 1 && shown.length === 1 && shown[0] === host;
  }

  /** One lane with one press, and with the next everybody, or of many those it begins with. */
  function only(host: string): void {
    if (!isAlone(host)) choose([host]);
    else choose(lanesIn(new URLSearchParams(), data.hosts, data.me.hostId).shown);
  }

  // A booking that was pressed, and where it is being moved.
  let opened = $state<string | undefined>(undefined);
  let openedDetail = $state.raw<Schemas['BookingDetail'] | undefined>(undefined);
  let openings = $state.raw<Schemas['Opening'][] | undefined>(undefined);
  let chosen = $state.raw<Schemas['Opening'] | undefined>(undefined);
  const openedHosts = $derived(openedDetail?.hosts.map((host) => host.id) ?? []);
  const BOOKING = 'booking:';
  const bookingPieces = $derived.by((): BoardPiece[] => {
    const row = openedDetail?.row;
    if (!openings || !row) return [];
    const place = placeOf(chosen ?? row, data.me.zone);
    return openedHosts.map((hostId) => ({
      ...place,
      key: `${BOOKING}${hostId}`,
      hostId,
      label: `${row.guestName}, ${row.page}: drag it to an opening`,
      text: row.guestName,
      tone: 'pick',
    }));
  });

  function lead(path: string): void {
    const booking = bookingAt(path);
    if (booking === undefined || booking === opened) return void goto(path);
    [openings, chosen, openedDetail, opened] = [undefined, undefined, undefined, booking];
  }

  function close(): void {
    [openings, chosen, openedDetail, opened] = [undefined, undefined, undefined, undefined];
  }

  /** Of office hours, or of the booking that is moved: that one goes to the opening it is meant for. */
  function change(key: string, span: BoardSpan): void {
    if (!key.startsWith(BOOKING)) return void editing.change(key, span);
    chosen = openingAt(openings ?? [], data.me.zone, span.date, span.from) ?? chosen;
  }

  function pick(key: string): void {
    const coming = data.board && comingOf(data.board, key);
    if (coming && !coming.mayChange) void goto(`/work/pages/${coming.pageId}`);
  }
</script>

<svelte:head><title>Board – Loose Lantern</title></svelte:head>

<header class="mb-3 flex flex-wrap items-center justify-between gap-3">
  <div class="flex flex-wrap items-baseline gap-x-3">
    <h1 class="text-page">Board</h1>
    <p class="text-muted">{dayMonth(data.from)} to {dayMonth(last)}, {cityOf(data.me.zone)} time</p>
  </div>
  <div class="flex flex-wrap gap-2">
    <ActionButton href="/work/cover">Find cover</ActionButton>
    <ActionButton onclick={() => move(-data.weeks)}>Earlier</ActionButton>
    <ActionButton disabled={data.from === data.today} onclick={() => show({ from: data.today })}>Today</ActionButton>
    <ActionButton onclick={() => move(data.weeks)}>On</ActionButton>
    <span class="w-40"
      ><Input
        type="date"
        aria-label="Go to a date"
        class="py-2"
        value={data.from}
        onchange={(event: Event & { currentTarget: HTMLInputElement }) =>
          event.currentTarget.value && show({ from: event.currentTarget.value })}
      /></span
    >
  </div>
</header>

<div class="mb-2.5 flex flex-wrap items-center gap-2">
  <div
    role="group"
    aria-label="Whose lanes are shown"
    class="flex flex-wrap gap-2 max-md:w-full max-md:flex-nowrap max-md:overflow-x-auto max-md:p-1"
  >
    {#each data.isMany ? data.hosts.filter((host) => shown.includes(host.id)) : data.hosts as host (host.id)}
      {@const isShown = shown.includes(host.id)}
      <span
        class="inline-flex shrink-0 overflow-hidden rounded-full border text-sm {isShown
          ? 'border-chosen bg-chosen text-on-chosen'
          : 'border-dashed border-edge text-muted'}"
      >
        <button
          type="button"
          aria-pressed={isShown}
          class="min-h-8 pr-2 pl-3 max-md:min-h-11"
          onclick={() => toggle(host.id)}>{host.name}</button
        ><button
          type="button"
          aria-label={isAlone(host.id) ? back : `only ${host.name}`}
          title={isAlone(host.id) ? (data.isMany ? 'Show others too' : 'Show everybody') : `Show only ${host.name}`}
          class="min-h-8 border-l border-current/30 pr-2.5 pl-2 text-fine max-md:min-h-11"
          onclick={() => only(host.id)}>{isAlone(host.id) ? back : 'only'}</button
        >
      </span>
    {/each}
    {#if data.isMany}
      <Select
        aria-label="Show another host"
        class="w-44"
        classes={{ select: 'py-1' }}
        placeholder=""
        value=""
        onchange={(event: Event & { currentTarget: HTMLSelectElement }) => {
          if (event.currentTarget.value) choose([...shown, event.currentTarget.value]);
        }}
        items={[
          { value: '', name: `another of ${data.hosts.length}` },
          ...data.hosts.filter((host) => !shown.includes(host.id)).map((host) => ({ value: host.id, name: host.name })),
        ]}
      />
    {/if}
  </div>
  <div class="ml-auto flex flex-wrap items-center gap-2 text-sm">
    <Select
      aria-label="How many weeks"
      class="w-28"
      classes={{ select: 'py-1.5' }}
      placeholder=""
      value={data.weeks}
      onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
        show({ weeks: Number(event.currentTarget.value) })}
      items={[1, 2, 3, 4, 5, 6, 7, 8].map((weeks) => ({
        value: weeks,
        name: weeks === 1 ? '1 week' : `${weeks} weeks`,
      }))}
    />
    <Select
      aria-label="A lane for all together"
      class="w-40"
      classes={{ select: 'py-1.5' }}
      placeholder=""
      value={data.together ?? ''}
      onchange={(event: Event & { currentTarget: HTMLSelectElement }) => show({ together: event.currentTarget.value })}
      items={[
        { value: '', name: 'no lane for all' },
        { value: 'all', name: 'when all are free' },
        { value: 'any', name: 'when any is free' },
      ]}
    />
    <ZoneSelect
      id="beside"
      label="Second time zone"
      none="no second time zone"
      class="w-52"
      box="py-1.5"
      value={data.beside ?? ''}
      onchosen={(beside) => show({ beside })}
    />
  </div>
</div>
{#if editing.problem}<div class="mb-3">
    <ProblemNote problem={editing.problem} />
  </div>{/if}
{#if data.board}
  {#each waitingOn(data.board) as bar (bar.outside?.id)}
    {#if bar.outside}
      <div class="mb-2">
        <OutsideNote
          outside={bar.outside}
          booking={bar.title}
          zone={data.me.zone}
          subject="{bar.title}, {dayName(dateIn(bar.start, data.me.zone))}, {timeOf(
            bar.start,
            data.me.zone,
          )}, {bar.source}"
        />
      </div>
    {/if}
  {/each}
  {#if opened}{#key opened}
      <OpenedBooking
        id={opened}
        zone={data.me.zone}
        {openings}
        {chosen}
        onmoving={(found) => ([openings, chosen] = [found, undefined])}
        onchoose={(opening) => (chosen = opening)}
        onloaded={(detail) => (openedDetail = detail)}
        onclose={close}
      />
    {/key}{/if}
  <Board
    board={data.board}
    hosts={data.board.hosts}
    today={data.today}
    together={data.together}
    beside={data.beside}
    pieces={[...pieces, ...bookingPieces]}
    lit={openings && { hosts: openedHosts, spans: openings.map((opening) => placeOf(opening, data.me.zone)) }}
    mayPaint={(host) => host.mayOffer}
    onlead={lead}
    onchange={change}
    {...data.me.isCoordinator
      ? {
          onpaint: (span: BoardSpan) => (painted = span),
          onerase: (key: string) => void (key.startsWith(BOOKING) || editing.erase(key)),
          onpick: pick,
        }
      : {}}
  />
{:else}
  <p class="rounded-2xl border border-line bg-card p-6 text-muted">Choose above whose time to show.</p>
{/if}

{#if painted && paintedHost && data.board}
  <NewBlock
    board={data.board}
    span={painted}
    host={paintedHost}
    desks={data.desks}
    usual={data.usual.now}
    acted={data.hosts.find((host) => host.id === painted?.hostId)}
    own={data.me.hostId}
    onmade={(told) => {
      painted = undefined;
      editing.tell(told);
      void askAnew();
    }}
    onclose={() => (painted = undefined)}
  />
{/if}
{#if editing.asked}
  <Dialog
    title={editing.asked.to ? 'Only this one, or all of them?' : 'Erase only this one, or all of them?'}
    onclose={() => (editing.asked = undefined)}
  >
    <p>These office hours come again and again.{editing.asked.mayAll ? '' : ' To another day only this one can go.'}</p>
    <div class="mt-4 flex flex-wrap justify-end gap-3">
      <ActionButton kind="quiet" onclick={() => (editing.asked = undefined)}>Cancel</ActionButton>
      {#if editing.asked.mayAll}<ActionButton onclick={() => void editing.answer(true)}>All of them</ActionButton>{/if}
      <ActionButton kind="main" onclick={() => void editing.answer(false)}>Only this one</ActionButton>
    </div>
  </Dialog>
{/if}
<div aria-live="polite" class="fixed right-6 bottom-6 z-50">
  {#if editing.told}
    <Toast dismissable class="border border-line bg-card text-ink" onclose={() => (editing.told = undefined)}>
      {editing.told}
      {#if editing.undo}<TextButton class="ml-2 font-semibold" onclick={() => void editing.takeBack()}>Undo</TextButton
        >{/if}
    </Toast>
  {/if}
</div>
