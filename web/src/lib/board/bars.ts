import type { Schemas } from '$lib/api/client';
import { dateIn, dayName, timeOf } from '$lib/time/format';

type Bar = Schemas['BoardBar'];

export const kinds: Record<Schemas['BarKind'], string> = {
  hours: 'open hours',
  leave: 'away',
  block: 'office hours',
  busy: 'busy',
  free: 'marked free',
  offered: 'offered',
  held: 'held',
  booked: 'booked',
};

/** Everything about a bar in one line: what it is, when, and who says so. */
export function barInWords(bar: Bar, zone: string): string {
  const [from, to] = [dateIn(bar.start, zone), dateIn(bar.end, zone)];
  const span = bar.wholeDay
    ? 'whole day'
    : `${timeOf(bar.start, zone)} to ${timeOf(bar.end, zone)}${from === to ? '' : ` (${dayName(from)} to ${dayName(to)})`}`;
  const kind = `${kinds[bar.kind]}${bar.tentative ? ', tentative' : ''}`;
  const outside = bar.outside
    ? bar.outside.change === 'moved'
      ? 'moved in the calendar, waits for an answer'
      : 'deleted in the calendar, waits for an answer'
    : '';
  return [bar.title === kind ? '' : bar.title, kind, span, bar.source, outside]
    .filter((part) => part !== '')
    .join(', ');
}

/** What is written on a bar. */
export function labelOf(bar: Bar): string {
  if (bar.kind === 'hours') return '';
  const title = bar.outside ? `? ${bar.title}` : bar.title;
  return bar.mark === '' ? title : `${bar.mark} ${title}`;
}

/** The bookings of a board whose events were moved or deleted in calendars, each once. */
export function waitingOn(board: Schemas['BoardAnswer']): Bar[] {
  const waiting = board.days.flatMap((day) =>
    day.lanes.flatMap((lane) => lane.bars.filter((bar) => bar.outside !== null)),
  );
  return waiting.filter((bar, index) => waiting.findIndex((other) => other.outside?.id === bar.outside?.id) === index);
}

/** Where the topmost bar at a minute of a lane leads; undefined where none leads anywhere. */
export function leadOf(bars: readonly Bar[], minute: number): string | undefined {
  const here = bars.filter((bar) => bar.fromMinute <= minute && minute < bar.toMinute && bar.path);
  return here.at(-1)?.path ?? undefined;
}

/** What lies at a minute of a lane, the topmost last; "outside hours" where nothing does. */
export function whatIsAt(bars: readonly Bar[], minute: number, zone: string): string {
  const here = bars.filter((bar) => bar.fromMinute <= minute && minute < bar.toMinute);
  const over = here.filter((bar) => bar.kind !== 'hours');
  if (over.length > 0) return over.map((bar) => barInWords(bar, zone)).join('; ');
  return here.length > 0 ? here.map((bar) => `free, ${barInWords(bar, zone)}`).join('; ') : 'outside hours';
}
