/** Dates as they are written, counted in whole days. No clock and no zone: what a place on the ribbon means is a date. */

const DAY = 86_400_000

/** The date so many days after another, both `2026-10-08`. */
export function plusDays(date: string, days: number): string {
  return new Date(Date.parse(`${date}T00:00:00Z`) + days * DAY).toISOString().slice(0, 10)
}

/** A moment of the ribbon, `2026-10-08T10:15`, so many whole days on, at the same time of the day. */
export function momentPlusDays(local: string, days: number): string {
  return `${plusDays(local.slice(0, 10), days)}T${local.slice(11, 16)}`
}

/** The Monday of a date's week. */
export const mondayOf = (date: string): string => plusDays(date, -((new Date(`${date}T00:00:00Z`).getUTCDay() + 6) % 7))
