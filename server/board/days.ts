import { DateTime } from 'luxon'

/** The first day that is looked at, as it begins at the site: the one asked for, or today. */
export const firstDay = (day: string | undefined, now: Date, zone: string): DateTime<true> =>
  ((day ? DateTime.fromISO(day, { zone }) : DateTime.fromJSDate(now, { zone })) as DateTime<true>).startOf('day')

/** So many days from one on. */
export const daysFrom = (first: DateTime<true>, many: number): DateTime<true>[] => Array.from({ length: many }, (_, day) => first.plus({ days: day }))
