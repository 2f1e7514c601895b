import type { DayStretch } from '#core/kit'

/** The days of a weekly shift, Monday first, as shifts are kept. */
export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const

/** A day on which somebody works otherwise than their week says; no stretches, and they are off. */
export interface ShiftException {
  /** "2026-12-24", by the site's calendar. */
  day: string
  stretches: DayStretch[]
}

const CLOCK = /^([01]?\d|2[0-3])(?::?([0-5]\d))?$/

/**
 * The stretches of a day as people write them: "08:00-12:30, 13:00-16:30", "8-12 1300-1630", or nothing for a day off.
 * Null when it cannot be read, ends before it begins, or its stretches lie over each other. A day ends at 24:00.
 */
export function readStretches(text: string): DayStretch[] | null {
  const parts = text
    .replace(/[–—]|\bto\b/g, '-')
    .replace(/\s*-\s*/g, '-')
    .split(/[,;\s]+/)
    .filter(Boolean)
  const stretches = parts.map((part) => {
    const [from, to, more] = part.split('-')
    return more === undefined && from && to ? { from: clock(from), to: clock(to) } : { from: null, to: null }
  })
  if (!stretches.every((one): one is DayStretch => one.from !== null && one.to !== null && one.from < one.to)) return null
  const sorted = [...stretches].sort((a, b) => a.from.localeCompare(b.from))
  return sorted.some((one, index) => index > 0 && one.from < sorted[index - 1]!.to) ? null : sorted
}

function clock(text: string): string | null {
  if (text === '24' || text === '24:00' || text === '2400') return '24:00'
  const [, hours, minutes] = CLOCK.exec(text) ?? []
  return hours ? `${hours.padStart(2, '0')}:${minutes ?? '00'}` : null
}

/** The same as {@link readStretches} reads it. */
export const writeStretches = (stretches: readonly DayStretch[]): string => stretches.map(({ from, to }) => `${from}-${to}`).join(', ')

/** When somebody works on a day: as it was said for that day, otherwise as their week says. @param weekday 1 for Monday to 7 for Sunday */
export function shiftOn(shift: readonly DayStretch[][], exceptions: readonly ShiftException[], day: string, weekday: number): DayStretch[] {
  return exceptions.find((one) => one.day === day)?.stretches ?? shift[weekday - 1] ?? []
}

/** Minutes of work in a week. */
export const weekMinutes = (shift: readonly DayStretch[][]): number => {
  const minutes = (text: string) => Number(text.slice(0, 2)) * 60 + Number(text.slice(3))
  return shift.flat().reduce((sum, { from, to }) => sum + minutes(to) - minutes(from), 0)
}
