import Big from 'big.js'
import { robustSlope } from './slope'

/** What a counter showed. */
export interface Reading {
  value: string
  at: Date | string
  /** Another counter was put in before it: that one began at nought. */
  anew?: boolean
}

export const DAY_MS = 86_400_000
const timeOf = ({ at }: Reading): number => new Date(at).getTime()
export const byTime = <One extends Reading>(readings: readonly One[]): One[] => [...readings].sort((a, b) => timeOf(a) - timeOf(b))

/**
 * How far a counter ran from one reading to the next: what it shows more; from nought, where another was put in; and through
 * its highest number to nought again, where it shows less.
 *
 * @param rollsAt at what number it is at nought again (100000 for five digits); null where it does not roll over
 * @returns in the unit of the meter, never below zero
 */
export function advance(from: Reading, to: Reading, rollsAt: string | null): Big {
  if (to.anew) return new Big(to.value)
  const more = new Big(to.value).minus(from.value)
  if (more.gte(0)) return more
  return rollsAt === null ? new Big(0) : more.plus(rollsAt)
}

export interface Stretch {
  from: Reading
  to: Reading
  /** In the unit of the meter. */
  ran: Big
  days: number
}

/** What a counter ran between its readings, the oldest first. */
export function stretches(readings: readonly Reading[], rollsAt: string | null): Stretch[] {
  const sorted = byTime(readings)
  return sorted.slice(1).map((to, index) => {
    const from = sorted[index]!
    return { from, to, ran: advance(from, to, rollsAt), days: (timeOf(to) - timeOf(from)) / DAY_MS }
  })
}

/** As many readings as its trend goes by (our own choice, no source). */
const MOST = 60

/**
 * How much it runs a day, by a slope a few wrong readings do not move.
 *
 * @returns in the unit of the meter; null with fewer than three readings
 */
export function usualPerDay(readings: readonly Reading[], rollsAt: string | null): number | null {
  const sorted = byTime(readings).slice(-MOST)
  if (sorted.length < 3) return null
  let ran = 0
  const points = sorted.map((one, index) => {
    if (index) ran += Number(advance(sorted[index - 1]!, one, rollsAt))
    return { x: timeOf(one) / DAY_MS, y: ran }
  })
  return robustSlope(points)
}

/** How far it has run since its first reading. */
export const ranSince = (readings: readonly Reading[], rollsAt: string | null): Big =>
  stretches(readings, rollsAt).reduce((sum, { ran }) => sum.plus(ran), new Big(0))
