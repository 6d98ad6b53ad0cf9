/** A time of day as people type it ("9", "9.30", "0930", "9:30") as "09:30", to "24:00"; what is no time comes back as it was. */
export function timeOfDay(typed: string): string {
  const match = /^(\d{1,2})(?:[:.h ]?(\d{2}))?$/.exec(typed.trim());
  if (!match) return typed.trim();
  const hour = Number(match[1]);
  const minute = Number(match[2] ?? '0');
  if (hour > 24 || minute > 59 || (hour === 24 && minute > 0)) return typed.trim();
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}
