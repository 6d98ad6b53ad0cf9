/** Lengths of time that people count in minutes, hours or days, kept as minutes. */
export const units = [
  { value: 1440, one: 'day', many: 'days' },
  { value: 60, one: 'hour', many: 'hours' },
  { value: 1, one: 'minute', many: 'minutes' },
] as const;

/** The largest unit that counts the minutes in whole numbers; hours for none at all. */
export function unitOf(minutes: number): number {
  if (minutes === 0) return 60;
  return units.find((unit) => minutes % unit.value === 0)?.value ?? 1;
}

/** 240 as "4 hours". */
export function inWords(minutes: number): string {
  if (minutes === 0) return 'none';
  const size = unitOf(minutes);
  const unit = units.find((candidate) => candidate.value === size) ?? units[2];
  const count = minutes / size;
  return `${count} ${count === 1 ? unit.one : unit.many}`;
}
