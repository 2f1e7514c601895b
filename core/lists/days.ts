import { DateTime } from 'luxon'

/**
 * A day as it is written in a list's address: "2026-11-25", "today", or days from today as "-30d" and "7d".
 * Days are those of the site's zone.
 */
const DAY = /^(\d{4}-\d{2}-\d{2}|today|-?\d{1,4}d)$/
const isDate = (text: string) => /^\d{4}-/.test(text)
/** The years every column and calendar holds. */
const YEARS = [1900, 2999] as const

/** Whether this is a day: of the calendar, or counted from today. */
export function isDay(text: string): boolean {
  return DAY.test(text) && (!isDate(text) || (DateTime.fromISO(text).isValid && Number(text.slice(0, 4)) >= YEARS[0] && Number(text.slice(0, 4)) <= YEARS[1]))
}

/** The instant a day begins, at `now` in `zone`. @throws RangeError when it is no day */
export function startOfDay(text: string, now: Date, zone: string): Date {
  if (!isDay(text)) throw new RangeError(`${text} is not a day.`)
  const today = DateTime.fromJSDate(now, { zone }).startOf('day')
  const day = text === 'today' ? today : isDate(text) ? DateTime.fromISO(text, { zone }) : today.plus({ days: Number(text.slice(0, -1)) })
  return day.toJSDate()
}

/** The day itself, as a column of days holds it: "2026-11-25". @throws RangeError when it is no day */
export const calendarDay = (text: string, now: Date, zone: string): string => DateTime.fromJSDate(startOfDay(text, now, zone), { zone }).toISODate()!

/** The first instant after a day: spans are asked for with both their days in them. */
export function endOfDay(text: string, now: Date, zone: string): Date {
  return DateTime.fromJSDate(startOfDay(text, now, zone), { zone })
    .plus({ days: 1 })
    .toJSDate()
}

/** "30 days ago", "today", "in 7 days", "25 Nov 2026". */
export function dayWords(text: string): string {
  if (text === 'today') return 'today'
  if (isDate(text)) return DateTime.fromISO(text).toFormat('d LLL yyyy')
  const days = Number(text.slice(0, -1))
  if (days === 0) return 'today'
  const many = `${Math.abs(days)} ${Math.abs(days) === 1 ? 'day' : 'days'}`
  return days < 0 ? `${many} ago` : `in ${many}`
}
