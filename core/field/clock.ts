import { DateTime } from 'luxon'
import { refuse } from '#core/kit'
import type { OrderState } from '#core/orders'
import { isForgotten } from './forgotten'

/**
 * When a stint ended: now, or when whoever forgot the clock says that they stopped. A clock that was set back
 * meanwhile never makes a stint end before it began.
 *
 * @throws Refusal when the clock was forgotten and nobody says when, or what is said cannot be
 */
export function endOfStint(startAt: Date, now: Date, stoppedAt: Date | null): Date {
  if (stoppedAt) {
    if (stoppedAt < startAt) refuse('stopped_before', 'You started after that. Say when you stopped.', 'stoppedAt')
    if (stoppedAt > now) refuse('stopped_later', 'That is still to come. Say when you stopped.', 'stoppedAt')
    if (isForgotten(startAt, stoppedAt)) refuse('stint_too_long', 'Nobody works for fourteen hours on end. Say when you stopped.', 'stoppedAt')
    return stoppedAt
  }
  if (isForgotten(startAt, now)) refuse('clock_forgotten', 'The clock has run for more than fourteen hours. Stop it and say when you did stop.', 'stoppedAt')
  return now < startAt ? startAt : now
}

/** Own time is put right while the work is not checked yet. */
const CORRECTED_IN: readonly OrderState[] = ['dispatched', 'on_job', 'on_hold', 'done']

export interface Worked {
  startAt: Date
  /** Null while the clock runs. */
  endAt: Date | null
}

/**
 * A stint as its person says it really was: on the day on which it ended, as long as nobody has checked the work, and never
 * over other time of theirs.
 * @param others every other stint of the same person near it, on whatever job, with its number
 * @param zone of the site, whose days are meant
 * @throws Refusal with why it cannot be put right like that
 */
export function correctedStint(
  mine: Worked & { orderState: OrderState },
  asked: { startAt: Date; endAt: Date },
  others: readonly (Worked & { number: string })[],
  now: Date,
  zone: string,
): void {
  const { startAt, endAt } = asked
  const dayOf = (at: Date) => DateTime.fromJSDate(at, { zone }).toISODate()
  if (!mine.endAt) refuse('still_running', 'The clock is still running. Stop it first.')
  if (!CORRECTED_IN.includes(mine.orderState)) refuse('checked_already', 'The work was checked already. Tell the desk what is wrong with the time.')
  if (dayOf(mine.endAt) !== dayOf(now)) refuse('another_day', 'Time is put right on the same day. Tell the desk what is wrong with it.')
  if (endAt <= startAt) refuse('ends_before', 'It ends after it began.', 'endAt')
  if (endAt > now) refuse('still_to_come', 'That is still to come.', 'endAt')
  if (isForgotten(startAt, endAt)) refuse('stint_too_long', 'Nobody works for fourteen hours on end.', 'startAt')
  refuseOverlap(others, asked, now, zone)
}

/**
 * Nobody works on two jobs at once.
 *
 * @param others every other stint of the same person near it, on whatever job, with its number
 * @throws Refusal with the time that is in the way
 */
export function refuseOverlap(
  others: readonly (Worked & { number: string })[],
  { startAt, endAt }: { startAt: Date; endAt: Date },
  now: Date,
  zone: string,
): void {
  const over = others.find((one) => one.startAt < endAt && startAt < (one.endAt ?? now))
  if (!over) return
  const clock = (at: Date) => DateTime.fromJSDate(at, { zone }).toFormat('HH:mm')
  refuse(
    'overlaps',
    `You were on ${over.number} from ${clock(over.startAt)} to ${over.endAt ? clock(over.endAt) : 'now'}. Nobody works on two jobs at once.`,
    'startAt',
  )
}
