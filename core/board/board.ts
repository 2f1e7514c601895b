import { DateTime } from 'luxon'

/** How many days the Board shows at once. */
export const BOARD_DAYS = [1, 3, 7] as const
export type BoardDays = (typeof BOARD_DAYS)[number]
export const BOARD_DAYS_NAMES: Record<BoardDays, string> = { 1: 'Day', 3: 'Three days', 7: 'Week' }

/** From its first instant up to, and without, its last. */
export interface Stretch {
  from: Date
  until: Date
}

/**
 * The lane each of several stretches of one person is drawn in, so that none covers another: the first that is free when
 * it begins. As many lanes as the most that run at once, which is the least there can be (interval partitioning: Kleinberg
 * and Tardos, Algorithm Design, 4.1; from memory).
 * @returns a lane from nought on for each, in the order in which they were given
 */
export function lanesOf(stretches: readonly Stretch[]): number[] {
  const order = stretches.map((_, index) => index).sort((a, b) => stretches[a]!.from.getTime() - stretches[b]!.from.getTime() || a - b)
  const ends: number[] = []
  const lanes = new Array<number>(stretches.length).fill(0)
  for (const index of order) {
    const { from, until } = stretches[index]!
    const free = ends.findIndex((end) => end <= from.getTime())
    const lane = free === -1 ? ends.length : free
    ends[lane] = Math.max(until.getTime(), from.getTime() + 1)
    lanes[index] = lane
  }
  return lanes
}

/**
 * The hours of the day that are drawn: those in which anybody works or is planned to, whole, at least eight of them.
 * @param stretches of shifts and visits of the days shown
 * @param zone of the site; hours are its own
 * @returns from 0 to 24, the second not among them
 */
export function hoursShown(stretches: readonly Stretch[], zone: string): { from: number; to: number } {
  const wall = wallOf(zone)
  let [from, to] = [24, 0]
  for (const stretch of stretches) {
    const [start, end] = [wall(stretch.from.getTime()), wall(stretch.until.getTime())]
    const midnight = Math.floor(start / DAY_MS) * DAY_MS
    if (end - 1 >= midnight + DAY_MS || end <= start) return { from: 0, to: 24 }
    from = Math.min(from, Math.floor((start - midnight) / HOUR_MS))
    to = Math.max(to, Math.ceil((end - midnight) / HOUR_MS))
  }
  if (from >= to) return { from: 8, to: 18 }
  while (to - from < LEAST_HOURS) {
    if (to < 24) to++
    if (to - from < LEAST_HOURS && from > 0) from--
  }
  return { from, to }
}
const LEAST_HOURS = 8

/**
 * Where instants lie on the Board, in shares of its width from 0 to 1: each day as wide as the others, and of each the hours
 * that are shown. What lies in hours that are not drawn lies at their edge. Asked for very many, it reckons in milliseconds and
 * reads the clock on the wall only on a day on which it is set.
 * @param first the first day shown, "2026-11-24"
 */
export function placesOn({ first, days, hours, zone }: BoardFrame): (at: Date) => number {
  const begins = Array.from({ length: days + 1 }, (_, day) => DateTime.fromISO(first, { zone }).plus({ days: day }).toMillis())
  const shown = hours.to - hours.from
  const wall = wallOf(zone)
  return (at) => {
    const ms = at.getTime()
    if (ms <= begins[0]!) return 0
    if (ms >= begins[days]!) return 1
    let day = 0
    while (ms >= begins[day + 1]!) day++
    const whole = begins[day + 1]! - begins[day]! === DAY_MS
    const hour = (whole ? ms - begins[day]! : wall(ms) % DAY_MS) / HOUR_MS
    return (day + Math.min(1, Math.max(0, (hour - hours.from) / shown))) / days
  }
}
const HOUR_MS = 3_600_000
const DAY_MS = 24 * HOUR_MS

/**
 * What the clock on the wall shows at an instant, as milliseconds of a day without a zone. The offset is asked
 * for once a quarter of an hour: clocks are set at none but whole quarters.
 */
function wallOf(zone: string): (ms: number) => number {
  const offsets = new Map<number, number>()
  return (ms) => {
    const quarter = Math.floor(ms / (HOUR_MS / 4))
    let offset = offsets.get(quarter)
    if (offset === undefined) offsets.set(quarter, (offset = DateTime.fromMillis(ms, { zone }).offset * 60_000))
    return ms + offset
  }
}

/** Where one instant lies. */
export const placeOf = (at: Date, frame: BoardFrame): number => placesOn(frame)(at)

export interface BoardFrame {
  first: string
  days: number
  hours: { from: number; to: number }
  zone: string
}

/**
 * The instant at a place on the Board, the other way round, on the nearest step of so many minutes.
 * @param share of its width, from 0 to 1; what lies beyond lies at its edge
 */
export function instantAt(share: number, { first, days, hours, zone }: BoardFrame, stepMinutes: number): Date {
  const within = Math.min(1, Math.max(0, share)) * days
  const day = Math.min(days - 1, Math.floor(within))
  const minutes = (hours.from + (within - day) * (hours.to - hours.from)) * 60
  const stepped = Math.round(minutes / stepMinutes) * stepMinutes
  const midnight = DateTime.fromISO(first, { zone }).plus({ days: day })
  // By the clock on the wall, so that a day on which it is set is as wide as the others.
  return (stepped >= 1440 ? midnight.plus({ days: 1 }) : midnight.set({ hour: Math.floor(stepped / 60), minute: stepped % 60 })).toJSDate()
}

/** Noon for who looks at half a day: the middle of the hours shown, whole. */
export function halfOf(hours: { from: number; to: number }, half: 'early' | 'late'): { from: number; to: number } {
  const noon = Math.ceil((hours.from + hours.to) / 2)
  return half === 'early' ? { from: hours.from, to: noon } : { from: noon, to: hours.to }
}
