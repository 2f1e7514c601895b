/** Days as "2026-11-26", counted by the calendar alone. */
export function dayAfter(day: string, days: number): string {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number]
  return new Date(Date.UTC(year, month - 1, date + days)).toISOString().slice(0, 10)
}

/** From the first to the last, both among them. */
export function daysBetween(from: string, to: string): string[] {
  const days: string[] = []
  for (let day = from; day <= to; day = dayAfter(day, 1)) days.push(day)
  return days
}

/** The first and last day of the week a day is in, from Monday, as ISO 8601 counts. */
export function weekOf(day: string): [first: string, last: string] {
  const weekday = (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7
  const first = dayAfter(day, -weekday)
  return [first, dayAfter(first, 6)]
}
