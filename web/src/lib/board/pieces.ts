import type { MinuteSpan } from '$lib/lanes/spans';
import type { PieceTone } from '$lib/lanes/tones';

/** Something on a board that can be picked, moved, stretched and erased. Minutes are of the day in the board's zone. */
export interface BoardPiece extends MinuteSpan {
  key: string;
  hostId: string;
  date: string;
  label: string;
  text?: string;
  tone: PieceTone;
  /** Where it leads. */
  href?: string;
}

/** A place on the board that was painted, or that a piece was taken to. */
export interface BoardSpan extends MinuteSpan {
  hostId: string;
  date: string;
}

export function laneId(date: string, hostId: string): string {
  return `${date}/${hostId}`;
}

export function laneOf(id: string): { date: string; hostId: string } {
  const [date = '', hostId = ''] = id.split('/');
  return { date, hostId };
}
