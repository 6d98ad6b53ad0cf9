/** A run of a day in minutes after midnight, [from, to). */
export interface MinuteSpan {
  from: number;
  to: number;
}

/** The part of the day that lanes show, in minutes after midnight. */
export type Axis = MinuteSpan;

export const DAY = 24 * 60;

export function snap(minute: number, step: number): number {
  return Math.round(minute / step) * step;
}

function clamp(value: number, least: number, most: number): number {
  return Math.min(Math.max(value, least), most);
}

/** Spans in order of time, with those that meet or touch joined into one. */
export function joined(spans: readonly MinuteSpan[]): MinuteSpan[] {
  const runs: MinuteSpan[] = [];
  for (const span of [...spans].filter((one) => one.to > one.from).sort((a, b) => a.from - b.from)) {
    const last = runs.at(-1);
    if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else runs.push({ ...span });
  }
  return runs;
}

/**
 * What is painted between two minutes, in whichever direction, each taken to the nearest step; at least one step long.
 */
export function painted(a: number, b: number, step: number, axis: Axis): MinuteSpan {
  const from = clamp(snap(Math.min(a, b), step), axis.from, axis.to - step);
  const to = clamp(snap(Math.max(a, b), step), from + step, axis.to);
  return { from, to };
}

/** A span carried along by some minutes, whole, within the day. */
export function moved(span: MinuteSpan, by: number): MinuteSpan {
  const from = clamp(span.from + by, 0, DAY - (span.to - span.from));
  return { from, to: from + span.to - span.from };
}

/** A span with one of its ends pulled to a minute; it stays at least a step long. */
export function stretched(span: MinuteSpan, end: 'from' | 'to', minute: number, step: number): MinuteSpan {
  return end === 'from'
    ? { from: clamp(minute, 0, span.to - step), to: span.to }
    : { from: span.from, to: clamp(minute, span.from + step, DAY) };
}

/** Where a span lies on an axis, as CSS. */
export function placeOn(axis: Axis, from: number, to: number): string {
  const length = axis.to - axis.from;
  const [left, right] = [Math.max(from, axis.from), Math.min(to, axis.to)];
  const start = ((left - axis.from) / length) * 100;
  return right > left ? `left: ${start}%; width: ${((right - left) / length) * 100}%` : `left: ${start}%`;
}

export function hourLines(axis: Axis, every = 60): number[] {
  const first = Math.ceil(axis.from / every) * every;
  return Array.from({ length: Math.floor((axis.to - first) / every) + 1 }, (_, index) => first + index * every);
}

/** 570 as "09:30", and 1440 as "24:00". */
export function minuteText(minute: number): string {
  return `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
}

/** "09:30" as 570; undefined for what is no time of day. */
export function minuteOf(text: string): number | undefined {
  const match = /^(\d{2}):(\d{2})$/.exec(text);
  if (!match) return undefined;
  const minute = Number(match[1]) * 60 + Number(match[2]);
  return minute <= DAY && Number(match[2]) < 60 ? minute : undefined;
}
