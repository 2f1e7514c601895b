import { byTime, DAY_MS, stretches, usualPerDay, advance } from './readings'
import type { Reading } from './readings'

export interface MeterRule {
  unit: string
  rollsAt: string | null
}

/** What whoever read it says of a reading that is not like the others. */
export const READING_ANSWERS = ['rolled', 'exchanged', 'sure'] as const
export type ReadingAnswer = (typeof READING_ANSWERS)[number]

export interface ReadingDoubt {
  code: 'reading_below' | 'reading_above' | 'reading_later'
  sentence: string
  /** Which answers it can have; with none of them it is read again. */
  answers: ReadingAnswer[]
}

/** How many times as fast as usual is wild, and how much faster than it ever ran (our own choice, no source). */
const TIMES_USUAL = 3
const TIMES_FASTEST = 1.5
/** Hours on a counter of hours may be read a little apart from the hour on the watch. */
const HOUR_SLACK = 1.02
const number = (value: number): string => String(Number(value.toPrecision(3)))

/**
 * Whether a reading is like those before it, so that whoever stands before the meter is asked once, and nobody later.
 *
 * @param readings those that are there, in any order
 * @param reading the new one, with the answer to what was asked of it, if it was
 * @returns what is to be asked; null where there is nothing to ask
 */
export function doubtOf(readings: readonly Reading[], reading: Reading & { answer?: ReadingAnswer | null }, rule: MeterRule): ReadingDoubt | null {
  const at = new Date(reading.at).getTime()
  const sorted = byTime(readings)
  const before = sorted.filter((one) => new Date(one.at).getTime() <= at)
  const last = before.at(-1)
  const next = sorted[before.length]
  const { answer = null } = reading
  if (next && !next.anew && Number(next.value) < Number(reading.value) && answer !== 'rolled')
    return {
      code: 'reading_later',
      sentence: `It showed ${next.value} ${rule.unit} later than that, which is less. Read it again.`,
      answers: rule.rollsAt ? ['rolled'] : [],
    }
  if (!last || answer === 'exchanged') return null
  if (Number(reading.value) < Number(last.value)) {
    if (answer === 'rolled' && rule.rollsAt) return null
    return {
      code: 'reading_below',
      sentence: `The last reading was ${last.value} ${rule.unit}, which is more.`,
      answers: [...(rule.rollsAt ? (['rolled'] as const) : []), 'exchanged'],
    }
  }
  return answer === 'sure' ? null : wild(before, last, reading, rule)
}

function wild(before: readonly Reading[], last: Reading, reading: Reading, { unit, rollsAt }: MeterRule): ReadingDoubt | null {
  const days = (new Date(reading.at).getTime() - new Date(last.at).getTime()) / DAY_MS
  const ran = Number(advance(last, reading, rollsAt))
  const above = (sentence: string): ReadingDoubt => ({ code: 'reading_above', sentence, answers: ['sure', 'exchanged'] })
  if (unit === 'h' && ran > Math.max(days * 24 * HOUR_SLACK, 1))
    return above(`That is ${number(ran)} h more than the last reading, and only ${number(days * 24)} h have passed since.`)
  const usual = usualPerDay(before, rollsAt)
  if (usual === null || days <= 0) return null
  const fastest = Math.max(...stretches(before, rollsAt).map((one) => (one.days > 0 ? Number(one.ran) / one.days : 0)))
  const rate = ran / days
  if (rate <= TIMES_USUAL * usual || rate <= TIMES_FASTEST * fastest) return null
  return above(`That is ${number(rate)} ${unit} a day since the last reading; usually it is ${number(usual)}.`)
}

/** At what number a counter of so many digits is at nought again. */
export const rollsAtOf = (digits: number): string => String(10 ** digits)
