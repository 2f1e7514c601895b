import { answerTimes } from '#core/dispatch'
import type { Reader } from '#server/kit'
import { calendarOf, rulesOf } from '#server/orders'
import type { Asking } from './records'

/** A vendor is asked whether they come at this time: nothing is answered yet, and it is known when that will be too long. */
export async function askingOf(
  db: Reader,
  order: { siteId: number; priority: Parameters<typeof answerTimes>[2] },
  plannedStart: Date,
  now: Date,
): Promise<Asking> {
  const [{ vendors }, calendar] = await Promise.all([rulesOf(db, order.siteId), calendarOf(db, order.siteId)])
  return { ...NO_ANSWER, ...answerTimes(now, plannedStart, order.priority, vendors, calendar) }
}

const NO_ANSWER = { answer: null, answeredAt: null, answerNote: null, proposedStart: null, proposedEnd: null, silentAt: null } as const

/** They have said that they come then. */
export const acceptedAt = (now: Date): Asking => ({ ...NO_ANSWER, answer: 'accepted', answeredAt: now, remindAt: null, tellAt: null })
