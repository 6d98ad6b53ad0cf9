import { Temporal } from 'temporal-polyfill';
import type { Schemas } from '$lib/api/client';
import { minuteText, type MinuteSpan } from '$lib/lanes/spans';
import type { BoardPiece, BoardSpan } from './pieces';

type Block = Schemas['BlockForm'];
type Coming = Schemas['BoardBlock'];

/** The wall clock in a page's zone at a minute of a date of the board's. */
export function startIn(zone: string, boardZone: string, date: string, minute: number): string {
  const at = Temporal.PlainDate.from(date)
    .toZonedDateTime({ timeZone: boardZone, plainTime: '00:00' })
    .toPlainDateTime()
    .add({ minutes: minute });
  return at.toZonedDateTime(boardZone).withTimeZone(zone).toPlainDateTime().toString({ smallestUnit: 'second' });
}

/** The pieces of those blocks that can be changed here: those that lie on one day of the board. */
export function piecesOf(board: Schemas['BoardAnswer']): BoardPiece[] {
  return board.days.flatMap((day) =>
    day.lanes.flatMap((lane) =>
      lane.bars.flatMap((bar) => {
        const { block } = bar;
        if (!block?.mayChange || bar.toMinute - bar.fromMinute !== block.length) return [];
        return [
          {
            key: keyOf(block),
            hostId: lane.hostId,
            date: day.date,
            from: bar.fromMinute,
            to: bar.toMinute,
            label: `${bar.title}, ${bar.source}`,
            text: `${bar.mark} ${bar.title}`,
            tone: 'block' as const,
            href: `/work/pages/${block.pageId}`,
          },
        ];
      }),
    ),
  );
}

export function keyOf(block: Coming): string {
  return `${block.pageId}:${block.index}:${block.start}`;
}

/** The coming of a block that a piece stands for. */
export function comingOf(board: Schemas['BoardAnswer'], key: string): Coming | undefined {
  for (const bar of board.days.flatMap((day) => day.lanes).flatMap((lane) => lane.bars))
    if (bar.block && keyOf(bar.block) === key) return bar.block;
  return undefined;
}

/** Whether a page's blocks still have the one that a coming was drawn from; a colleague may have changed them since. */
export function isStill(blocks: readonly Block[], coming: Coming): boolean {
  const block = blocks[coming.index];
  if (!block || block.length !== coming.length || (block.rule !== null) !== coming.repeats) return false;
  return coming.repeats
    ? block.start.slice(11, 16) === coming.start.slice(11, 16) && !block.without.includes(coming.start.slice(0, 10))
    : block.start.slice(0, 16) === coming.start.slice(0, 16);
}

/** Blocks with one coming of one of them taken elsewhere or stretched; of a repeating one only that coming. */
export function withOne(blocks: readonly Block[], coming: Coming, to: { start: string; length: number }): Block[] {
  return coming.repeats
    ? [...erasedOne(blocks, coming), { start: to.start, length: to.length, rule: null, without: [] }]
    : blocks.map((block, index) => (index === coming.index ? { ...block, ...to } : block));
}

/** Blocks with all comings of one of them shifted and stretched alike. */
export function withAll(blocks: readonly Block[], coming: Coming, to: { start: string; length: number }): Block[] {
  const by = Temporal.PlainDateTime.from(coming.start).until(Temporal.PlainDateTime.from(to.start), {
    largestUnit: 'minutes',
  });
  return blocks.map((block, index) =>
    index === coming.index
      ? {
          ...block,
          start: Temporal.PlainDateTime.from(block.start).add(by).toString({ smallestUnit: 'second' }),
          length: to.length,
        }
      : block,
  );
}

/** Blocks without one coming of one of them. */
export function erasedOne(blocks: readonly Block[], coming: Coming): Block[] {
  if (!coming.repeats) return blocks.filter((_, index) => index !== coming.index);
  return blocks.map((block, index) =>
    index === coming.index ? { ...block, without: [...block.without, coming.start.slice(0, 10)] } : block,
  );
}

/** Blocks without one of them at all. */
export function erasedAll(blocks: readonly Block[], coming: Coming): Block[] {
  return blocks.filter((_, index) => index !== coming.index);
}

/** "Tue 8 Dec, 09:00–12:00", in whatever words the day is given. */
export function spanInWords(day: string, span: MinuteSpan): string {
  return `${day}, ${minuteText(span.from)}–${minuteText(span.to)}`;
}

/** What of a span is to be stored, where it was painted or dropped. */
export function placeOf(
  board: Schemas['BoardAnswer'],
  zone: string,
  span: BoardSpan,
): { start: string; length: number } {
  return { start: startIn(zone, board.zone, span.date, span.from), length: span.to - span.from };
}

/** Other office hours of a page, offered as those it has. */
export function blocksWith(form: Schemas['PageForm'], list: Block[]): Schemas['BlocksForm'] {
  return { whole: form.times.blocks?.whole ?? false, list };
}

/** "10 minutes after each: 14 openings become 10": what time kept free would cost a block; undefined for nothing. */
export function buffersCost(length: number, minutes: number, buffer: number): string | undefined {
  if (!(minutes > 0) || minutes > length) return undefined;
  const now = Math.floor(length / minutes);
  const then = Math.floor((length + buffer) / (minutes + buffer));
  const openings = (count: number): string => (count === 1 ? 'one opening' : `${String(count)} openings`);
  return then >= now
    ? undefined
    : `Nothing is kept free between them. With ${String(buffer)} minutes after each, ${openings(now)} would become ${then === 1 ? 'one' : String(then)}.`;
}
