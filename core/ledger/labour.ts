import Big from 'big.js'
import { roundHalfUp } from '#core/kit'
import type { Minor } from '#core/kit'

/** What an hour costs from an instant on, in minor units. */
export interface LabourRate {
  from: Date
  normalPerHour: Minor
  overtimePerHour: Minor
}

export interface LabourTerms {
  /** In any order; the latest that has begun is in force. */
  rates: LabourRate[]
  /** Stints are rounded up to this many minutes. */
  stepMinutes: number
  /** A visit counts at least this many minutes; 0 for none. */
  callOutMinutes: number
}

export const STINT_KINDS = ['travel', 'work', 'waiting', 'break'] as const
export type StintKind = (typeof STINT_KINDS)[number]
/** Kinds of stint that cost money: a break is nobody's charge. */
export const CHARGED_STINTS: StintKind[] = ['travel', 'work', 'waiting']
export function isCharged(kind: StintKind): boolean {
  return CHARGED_STINTS.includes(kind)
}

export const STINT_KIND_NAMES: Record<StintKind, string> = {
  travel: 'Travel',
  work: 'Work',
  waiting: 'Waiting',
  break: 'Break',
}

/**
 * Whole minutes charged for a stretch of time, rounded up to the step.
 * @throws RangeError when the end is before the start
 */
export function chargedMinutes(start: Date, end: Date, stepMinutes: number): number {
  const milliseconds = end.getTime() - start.getTime()
  if (milliseconds < 0) throw new RangeError('A stint ends after it starts.')
  return Math.ceil(milliseconds / (stepMinutes * 60_000)) * stepMinutes
}

/** The rate in force at an instant. @throws RangeError when none has begun */
export function rateAt(rates: LabourRate[], at: Date): LabourRate {
  const begun = rates.filter((rate) => rate.from <= at)
  if (!begun.length) throw new RangeError('No labour rate is in force at that time.')
  return begun.reduce((latest, rate) => (rate.from > latest.from ? rate : latest))
}

/** Minutes at an hourly rate, in minor units, rounded half up. */
export function labourCost(minutes: number, perHour: Minor): Minor {
  return roundHalfUp(new Big(minutes).times(perHour).div(60))
}
