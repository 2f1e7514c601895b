import { DateTime } from 'luxon'

/** A stretch of one local day, "HH:MM" to "HH:MM"; "24:00" is midnight at its end. */
export interface DayStretch {
  from: string
  to: string
}

/** When a site works: a week (Monday first), holidays as local dates, and the zone both are read in. */
export interface WorkCalendar {
  zone: string
  week: DayStretch[][]
  holidays: string[]
}

const MINUTE = 60_000
const LONGEST_SEARCH_DAYS = 3_660

/**
 * The instant at which `minutes` of working time have passed since `start`.
 * Inverse of {@link workingMinutesBetween}. Local clock times are resolved in the calendar's zone,
 * so a day with a clock change is as long as it really is.
 *
 * @param minutes zero or more; zero gives `start` itself, also outside working hours
 * @throws RangeError when minutes are negative, or the calendar has no such working time in ten years
 */
export function addWorkingTime(start: Date, minutes: number, calendar: WorkCalendar): Date {
  if (!(minutes >= 0)) throw new RangeError('Working minutes are zero or more.')
  if (minutes === 0) return new Date(start)
  let left = minutes * MINUTE
  for (const [from, to] of stretchesFrom(start, calendar)) {
    const begin = Math.max(from, start.getTime())
    if (to - begin >= left) return new Date(begin + left)
    left -= to - begin
  }
  throw new RangeError('The calendar has too little working time for this.')
}

/** Working minutes from `a` to `b`, to the millisecond; negative when `b` is before `a`. */
export function workingMinutesBetween(a: Date, b: Date, calendar: WorkCalendar): number {
  if (b < a) return -workingMinutesBetween(b, a, calendar)
  let sum = 0
  for (const [from, to] of stretchesFrom(a, calendar)) {
    if (from >= b.getTime()) break
    sum += Math.min(to, b.getTime()) - Math.max(from, a.getTime())
  }
  return sum / MINUTE
}

/** When the site works between two instants, as stretches in order, cut off at both ends. */
export function workingStretches(from: Date, until: Date, calendar: WorkCalendar): { from: Date; until: Date }[] {
  const found: { from: Date; until: Date }[] = []
  for (const [begin, end] of stretchesFrom(from, calendar)) {
    if (begin >= until.getTime()) break
    found.push({ from: new Date(Math.max(begin, from.getTime())), until: new Date(Math.min(end, until.getTime())) })
  }
  return found
}

/** Whether the site is working at this instant. */
export function isWorkingAt(at: Date, calendar: WorkCalendar): boolean {
  for (const [from] of stretchesFrom(at, calendar)) return from <= at.getTime()
  return false
}

/** The working stretches that end after `start`, as instants in order, for ten years. */
function* stretchesFrom(start: Date, calendar: WorkCalendar): Generator<[number, number]> {
  const first = DateTime.fromJSDate(start, { zone: calendar.zone })
  const noon = Date.UTC(first.year, first.month - 1, first.day, 12)
  const days = daysOf(calendar)
  for (let n = 0; n < LONGEST_SEARCH_DAYS; n++) {
    for (const stretch of stretchesOn(noon + n * DAY, days, calendar)) if (stretch[1] > start.getTime()) yield stretch
  }
}

const DAY = 86_400_000
/** By noon of the local date, as if it were UTC. */
type Days = Map<number, [number, number][]>
const MOST_CALENDARS = 64
/** Days worked out so far, by what the calendar says: it is read anew for every answer, and says the same. */
const byContent = new Map<string, Days>()
const byCalendar = new WeakMap<WorkCalendar, Days>()

function daysOf(calendar: WorkCalendar): Days {
  const known = byCalendar.get(calendar)
  if (known) return known
  const content = JSON.stringify([calendar.zone, calendar.week, calendar.holidays])
  const days: Days = byContent.get(content) ?? new Map()
  if (byContent.size >= MOST_CALENDARS) byContent.clear()
  byContent.set(content, days)
  byCalendar.set(calendar, days)
  return days
}

/** The stretches of one local date as instants. */
function stretchesOn(noon: number, days: Days, calendar: WorkCalendar): [number, number][] {
  const found = days.get(noon)
  if (found) return found
  const date = new Date(noon).toISOString().slice(0, 10)
  const day = DateTime.fromISO(date, { zone: calendar.zone })
  const stretches = calendar.holidays.includes(date) ? [] : (calendar.week[day.weekday - 1] ?? [])
  const instants = stretches.map(({ from, to }): [number, number] => [localInstant(day, from), localInstant(day, to)]).filter(([from, to]) => to > from)
  days.set(noon, instants)
  return instants
}

function localInstant(day: DateTime, clock: string): number {
  const [hour, minute] = clock.split(':').map(Number) as [number, number]
  if (hour === 24) return day.plus({ days: 1 }).toMillis()
  return day.set({ hour, minute }).toMillis()
}
