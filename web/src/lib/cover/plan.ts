import type { Schemas } from '$lib/api/client';

type View = Schemas['CoverView'];
type Line = Schemas['CoverLineView'];
type Board = Schemas['BoardAnswer'];

/** Whether the line does anything: who has it changes, or nobody does. */
export function isChanged(line: Line): boolean {
  return line.after === null || line.after.some((seat) => !line.before.some((had) => had.host === seat.host));
}

/** A plan as it is carried out. */
export function formOf(plan: View, away: string[], word: string, tellKept: boolean): Schemas['CoverForm'] {
  const seats = (of: Schemas['CoverSeatView'][]): Schemas['CoverSeat'][] =>
    of.map(({ seat, host }) => ({ seat, host }));
  return {
    away,
    word,
    tellKept,
    lines: plan.lines.map((line) => ({
      session: line.session,
      before: seats(line.before),
      after: line.after && seats(line.after),
    })),
  };
}

/**
 * What a line is once somebody takes a seat of it: the others stay as they are planned, or as they were.
 *
 * @returns undefined as long as a seat is still without anybody
 */
export function decide(line: Line, seat: number, host: string): Schemas['CoverDecision'] | undefined {
  const stay = line.after ?? line.before.filter((had) => !had.isAway);
  const seats = [
    ...stay.filter((one) => one.seat !== seat).map((one) => ({ seat: one.seat, host: one.host })),
    { seat, host },
  ];
  const needed = line.after ?? line.before;
  return needed.every((one) => seats.some((filled) => filled.seat === one.seat))
    ? { session: line.session, seats }
    : undefined;
}

/** The seats of a line for which somebody can be chosen: those that lose their host, or got another. */
export function seatsToFill(line: Line): Schemas['CoverSeatView'][] {
  return line.before.filter(
    (had) => had.isAway || line.after?.some((seat) => seat.seat === had.seat && seat.host !== had.host),
  );
}

/** The board as it will be: bars of what goes to others lie in their lanes, and those of what is left are gone. */
export function asPlanned(board: Board, lines: Line[]): Board {
  const lineOf = (bar: Schemas['BoardBar']): Line | undefined =>
    bar.kind === 'booked'
      ? lines.find((line) => bar.path?.endsWith(`/${line.booking}`) || bar.path?.endsWith(`/${line.session}`))
      : undefined;
  return {
    ...board,
    days: board.days.map((day) => {
      const moved = new Map<string, Schemas['BoardBar'][]>();
      const lanes = day.lanes.map((lane) => ({
        ...lane,
        bars: lane.bars.filter((bar) => {
          const line = lineOf(bar);
          if (!line) return true;
          for (const seat of line.after ?? []) {
            const known = moved.get(seat.host) ?? [];
            if (!known.some((other) => other.path === bar.path && other.fromMinute === bar.fromMinute))
              moved.set(seat.host, [...known, bar]);
          }
          return false;
        }),
      }));
      return {
        ...day,
        lanes: lanes.map((lane) => ({ ...lane, bars: [...lane.bars, ...(moved.get(lane.hostId) ?? [])] })),
      };
    }),
  };
}
