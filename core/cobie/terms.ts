import { DateTime } from 'luxon'

/** A day in a cell: ISO 8601 with or without a time, or the count of days a workbook keeps. Null when it is none. */
export function dayIn(cell: string): string | null {
  const iso = /^(\d{4})-(\d{2})-(\d{2})(?:[T ].*)?$/.exec(cell)
  if (iso) {
    const day = DateTime.fromISO(cell.slice(0, 10))
    return day.isValid && day.year >= 1900 && day.year < 3000 ? day.toISODate() : null
  }
  // Days since the end of 1899, as workbooks count from March 1900 on.
  if (/^\d{5}(\.\d+)?$/.test(cell))
    return DateTime.utc(1899, 12, 30)
      .plus({ days: Math.floor(Number(cell)) })
      .toISODate()
  return null
}

const UNITS = ['day', 'week', 'month', 'year'] as const
/** So many of a unit of the calendar. */
export interface Duration {
  length: number
  unit: (typeof UNITS)[number]
}

/** A duration as a workbook tells it; null for a unit nobody knows. */
export function durationIn(length: number, unit: string): Duration | null {
  const known = UNITS.find((one) => one === unit.toLowerCase().replace(/s$/, ''))
  return known ? { length, unit: known } : null
}

/** The last day of something that lasts so long, its first day among them: a year from 1 May ends on 30 April. */
export const untilOf = (from: string, { length, unit }: Duration): string =>
  DateTime.fromISO(from)
    .plus({ [unit]: length })
    .minus({ days: 1 })
    .toISODate()!

/** Whole years, to the nearest. */
export const yearsOf = ({ length, unit }: Duration): number => Math.round(length / { day: 365.25, week: 365.25 / 7, month: 12, year: 1 }[unit])
