<script lang="ts">
  import type { Snippet } from 'svelte';
  import { DAY, minuteText, moved, painted, placeOn, snap, stretched, type Axis, type MinuteSpan } from './spans';
  import { looksOf, type PieceTone } from './tones';

  /** Something in a lane that can be picked, moved, stretched and erased. */
  interface LanePiece extends MinuteSpan {
    key: string;
    /** What it is, for screen readers and on pointing. */
    label: string;
    /** Written on it where there is room. */
    text?: string;
    tone: PieceTone;
    /** Where it leads. */
    href?: string;
  }

  /** What is said of pieces, in the language of whoever reads. */
  export interface LaneWords {
    /** A stretch of the day, from minutes after midnight. */
    between: (from: number, to: number) => string;
    marking: (from: number) => string;
    erase: (piece: string) => string;
    minute: (minute: number) => string;
  }

  interface Props {
    /** Unlike any other lane's of the same board; a piece that is dropped on another lane is given its id. */
    id: string;
    /** What the lane is, such as "Tuesday". */
    label: string;
    axis: Axis;
    pieces: LanePiece[];
    step?: number;
    /** Minutes of what a press puts down, where it is always as long; then nothing is stretched. */
    length?: number | undefined;
    /** What lies at a minute besides the pieces, for the keyboard. */
    describe?: (minute: number) => string;
    isTabStop?: boolean;
    onpaint?: (span: MinuteSpan) => void;
    onchange?: (key: string, span: MinuteSpan, lane: string) => void;
    onerase?: (key: string) => void;
    onpick?: (key: string) => void;
    /** Called with a minute that was pressed or stepped to, to say what is there. */
    onpoint?: (minute: number) => void;
    /** A mere press, or Enter, where no piece is. */
    onpress?: (minute: number) => void;
    words?: LaneWords;
    children?: Snippet;
  }

  let {
    id,
    label,
    axis,
    pieces,
    step = 15,
    length,
    describe,
    isTabStop = true,
    onpaint,
    onchange,
    onerase,
    onpick,
    onpoint,
    onpress,
    words = {
      between: (from, to) => `${minuteText(from)} to ${minuteText(to)}`,
      marking: (from) => `marking from ${minuteText(from)}`,
      erase: (piece) => `Erase ${piece}`,
      minute: minuteText,
    },
    children,
  }: Props = $props();

  type Drag =
    | { kind: 'paint'; start: number; at: number }
    | { kind: 'move' | 'from' | 'to'; piece: LanePiece; start: number; at: number; moved: boolean };

  const EDGE = 9;
  let surface: HTMLElement;
  let drag = $state.raw<Drag | undefined>(undefined);
  let picked = $state<string | undefined>(undefined);
  let caret = $state<number | undefined>(undefined);
  let lighting = $state<number | undefined>(undefined);

  const canPaint = $derived(onpaint !== undefined);
  const ghost = $derived.by((): MinuteSpan | undefined => {
    if (drag?.kind === 'paint')
      return length === undefined ? painted(drag.start, drag.at, step, axis) : filled(drag.start, drag.at, length);
    if (lighting !== undefined && caret !== undefined) return painted(lighting, caret, step, axis);
    return undefined;
  });
  const shown = $derived(
    pieces.map((piece) =>
      drag && drag.kind !== 'paint' && drag.piece.key === piece.key ? { ...piece, ...spanOf(drag) } : piece,
    ),
  );
  const said = $derived.by(() => {
    if (caret === undefined) return '';
    const piece = pieceAt(caret);
    const what = piece?.label ?? describe?.(caret) ?? '';
    return `${words.minute(caret)}${what ? `, ${what}` : ''}${lighting === undefined ? '' : `, ${words.marking(lighting)}`}`;
  });

  function spanOf(of: Exclude<Drag, { kind: 'paint' }>): MinuteSpan {
    if (of.kind === 'move') return moved(of.piece, snap(of.at - of.start, step));
    return stretched(of.piece, of.kind, snap(of.at, step), step);
  }

  /** What a press at a minute puts down, within the lane. */
  function put(minute: number, long: number): MinuteSpan {
    const from = Math.max(axis.from, Math.min(Math.floor(minute / step) * step, axis.to - step));
    return { from, to: from + long };
  }

  /** What a drag fills: a stretch, or, where it is shorter than one piece, that one. */
  function filled(start: number, at: number, long: number): MinuteSpan {
    const span = painted(start, at, step, axis);
    return Math.abs(at - start) < step / 3 || span.to - span.from < long ? put(start, long) : span;
  }

  function pieceAt(minute: number): LanePiece | undefined {
    return pieces.find((piece) => piece.from <= minute && minute < piece.to);
  }

  function minuteOf(event: PointerEvent): number {
    const box = surface.getBoundingClientRect();
    return axis.from + ((event.clientX - box.left) / box.width) * (axis.to - axis.from);
  }

  /**
   * Within a form that can't be changed the lane can't be either; it is no control that a browser would lock by itself.
   */
  function isLocked(): boolean {
    return surface.closest('fieldset:disabled') !== null;
  }

  function press(event: PointerEvent): void {
    if (event.button !== 0 || isLocked()) return;
    const element = (event.target as HTMLElement).closest<HTMLElement>('[data-piece]');
    const piece = element && pieces.find((one) => one.key === element.dataset['piece']);
    const at = minuteOf(event);
    if (piece && element) {
      const box = element.getBoundingClientRect();
      const edge = Math.min(EDGE, box.width / 4);
      const kind =
        length !== undefined
          ? 'move'
          : event.clientX - box.left <= edge
            ? 'from'
            : box.right - event.clientX <= edge
              ? 'to'
              : 'move';
      drag = { kind, piece, start: at, at, moved: false };
    } else if (canPaint) {
      drag = { kind: 'paint', start: at, at };
    } else {
      onpoint?.(Math.floor(at));
      return onpress?.(Math.floor(at));
    }
    picked = piece?.key;
    surface.setPointerCapture(event.pointerId);
  }

  function pull(event: PointerEvent): void {
    if (!drag) return;
    const at = minuteOf(event);
    drag =
      drag.kind === 'paint'
        ? { ...drag, at }
        : { ...drag, at, moved: drag.moved || Math.abs(at - drag.start) >= step / 2 || laneUnder(event) !== id };
  }

  function laneUnder(event: PointerEvent): string {
    const under = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-lane]');
    return under?.dataset['lane'] ?? id;
  }

  function drop(event: PointerEvent): void {
    const done = drag;
    drag = undefined;
    if (!done) return;
    // A mere press asks what is there; it paints nothing.
    if (done.kind === 'paint' && length !== undefined) {
      onpoint?.(Math.floor(done.at));
      onpaint?.(filled(done.start, done.at, length));
    } else if (done.kind === 'paint' && Math.abs(done.at - done.start) < step / 3) {
      onpoint?.(Math.floor(done.at));
      onpress?.(Math.floor(done.at));
    } else if (done.kind === 'paint') onpaint?.(painted(done.start, done.at, step, axis));
    else if (done.moved) onchange?.(done.piece.key, spanOf(done), done.kind === 'move' ? laneUnder(event) : id);
    else onpick?.(done.piece.key);
  }

  function key(event: KeyboardEvent): void {
    if (event.target !== surface || event.ctrlKey || event.metaKey || isLocked()) return;
    const at = caret ?? snap(axis.from + 60, step);
    const piece = pieceAt(at);
    const by = event.key === 'ArrowLeft' ? -step : event.key === 'ArrowRight' ? step : 0;
    if (by !== 0 && piece && event.altKey) {
      const span = moved(piece, by);
      caret = at + span.from - piece.from;
      onchange?.(piece.key, span, id);
    } else if (by !== 0 && piece && event.shiftKey && length === undefined) {
      const span = stretched(piece, 'to', piece.to + by, step);
      caret = Math.min(at, span.to - step);
      onchange?.(piece.key, span, id);
    } else if (by !== 0) {
      caret = Math.min(Math.max(at + by, axis.from), lighting === undefined ? axis.to - step : axis.to);
      onpoint?.(caret);
    } else if (event.key === ' ' && canPaint && length !== undefined) onpaint?.(put(at, length));
    else if (event.key === ' ' && canPaint && lighting === undefined) {
      caret = at;
      lighting = at;
    } else if (event.key === ' ' && lighting !== undefined) {
      onpaint?.(painted(lighting, at, step, axis));
      lighting = undefined;
    } else if (event.key === 'Enter' && piece) onpick?.(piece.key);
    else if (event.key === 'Enter') onpress?.(at);
    else if ((event.key === 'Delete' || event.key === 'Backspace') && piece) onerase?.(piece.key);
    else if (event.key === 'Escape' && lighting !== undefined) lighting = undefined;
    else return;
    event.preventDefault();
  }

  function leave(event: FocusEvent): void {
    if (surface.contains(event.relatedTarget as Node | null)) return;
    caret = undefined;
    lighting = undefined;
    picked = undefined;
  }
</script>

<!-- A lane is painted by mouse, touch and keys; its pieces are named within it. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  bind:this={surface}
  role="group"
  aria-label={label}
  data-lane={id}
  data-from={axis.from}
  data-to={axis.to}
  tabindex={isTabStop ? 0 : -1}
  class="relative h-full touch-pan-y select-none {canPaint ? 'cursor-crosshair' : ''}"
  onpointerdown={press}
  onpointermove={pull}
  onpointerup={drop}
  onpointercancel={() => (drag = undefined)}
  onkeydown={key}
  onfocusin={(event) =>
    event.target === surface && surface.matches(':focus-visible') && (caret ??= snap(axis.from + 60, step))}
  onfocusout={leave}
>
  {@render children?.()}
  {#each shown as piece (piece.key)}
    <span
      data-piece={piece.key}
      title="{piece.label}, {words.between(piece.from, piece.to)}"
      class="absolute inset-y-[2px] overflow-visible rounded-[5px] px-1 text-tiny leading-[17px] whitespace-nowrap {looksOf[
        piece.tone
      ]} {onchange ? 'cursor-grab' : ''} {picked === piece.key ? 'z-10 outline-2 outline-ink' : ''}"
      style={placeOn(axis, piece.from, piece.to)}
    >
      <span class="sr-only">{piece.label}, {words.between(piece.from, piece.to)}</span>
      {#if piece.text}<span aria-hidden="true" class="block overflow-hidden">{piece.text}</span>{/if}
      {#if onchange && length === undefined}
        <span aria-hidden="true" class="absolute inset-y-0 left-0 w-2 cursor-ew-resize"></span><span
          aria-hidden="true"
          class="absolute inset-y-0 right-0 w-2 cursor-ew-resize"
        ></span>
      {/if}
      {#if picked === piece.key && piece.href}
        <a
          href={piece.href}
          aria-label="Open {piece.label}"
          class="absolute -bottom-2.5 -right-3 z-20 h-6 w-6 rounded-full border border-line-strong bg-card text-center leading-[22px] text-ink shadow"
          onpointerdown={(event) => event.stopPropagation()}>→</a
        >
      {/if}
      {#if picked === piece.key && onerase}
        <button
          type="button"
          aria-label={words.erase(`${piece.label}, ${words.between(piece.from, piece.to)}`)}
          class="absolute -top-2 -right-3 z-20 h-6 w-6 rounded-full border border-line-strong bg-card leading-none text-ink shadow"
          onpointerdown={(event) => event.stopPropagation()}
          onclick={() => onerase(piece.key)}>×</button
        >
      {/if}
    </span>
  {/each}
  {#if ghost}
    <span
      aria-hidden="true"
      class="pointer-events-none absolute inset-y-[1px] z-10 rounded-[5px] border-2 border-ink bg-glow-soft/60 px-1 text-tiny whitespace-nowrap"
      style={placeOn(axis, ghost.from, ghost.to)}>{words.minute(ghost.from)} – {words.minute(ghost.to)}</span
    >
  {/if}
  {#if caret !== undefined}
    <span
      aria-hidden="true"
      class="pointer-events-none absolute -inset-y-[2px] z-10 w-0.5 bg-ink"
      style="left: {((Math.min(caret, DAY) - axis.from) / (axis.to - axis.from)) * 100}%"
    ></span>
  {/if}
  <span class="sr-only" aria-live="polite">{said}</span>
</div>
