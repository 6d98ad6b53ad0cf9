// Calendar dates are written YYYY-MM-DD and counted in UTC, where each day has 24 hours.

const DAY = 86_400_000;

/** The date so many days later. */
export function plusDays(date: string, days: number): string {
  return new Date(Date.parse(date) + days * DAY).toISOString().slice(0, 10);
}

/** The Monday of a date's week. */
export function mondayOf(date: string): string {
  return plusDays(date, -((new Date(date).getUTCDay() + 6) % 7));
}
