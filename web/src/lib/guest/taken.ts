/** Time that a calendar of the guest's own has taken, in epoch milliseconds, [from, to). */
export interface Taken {
  from: number;
  to: number;
  title: string;
}

/** Whether a time meets one that is taken; what it is then. */
export function clashOf(taken: readonly Taken[], start: string, end: string): Taken | undefined {
  const [from, to] = [Date.parse(start), Date.parse(end)];
  return taken.find((one) => one.from < to && from < one.to);
}
