import { addWorkingTime } from '#core/kit'
import type { Reason, WorkCalendar } from '#core/kit'
import type { Priority } from '#core/requests'
import { windowReason } from '#core/windows'

/** What a vendor says to being sent: coming, at another time only, or not at all. Nothing yet is no answer. */
export const VISIT_ANSWERS = ['accepted', 'proposed', 'declined'] as const
export type VisitAnswer = (typeof VISIT_ANSWERS)[number]
export const VISIT_ANSWER_NAMES: Record<VisitAnswer, string> = { accepted: 'Accepted', proposed: 'Proposes another time', declined: 'Declined' }

/** After how long without an answer a vendor is reminded, and the desk told; minutes. */
export interface AnswerWait {
  remind: number
  tell: number
}
/** What a site decides about vendors who do not answer. */
export interface VendorRules {
  /** By the clock, day and night. */
  emergency: AnswerWait
  /** In working time of the site. */
  other: AnswerWait
}
export const MOST_WAIT = 14_400
/** Half an hour and an hour where life or the building is at stake, half a working day and a whole one otherwise: our own choice, no source. */
export const USUAL_VENDOR_RULES: VendorRules = { emergency: { remind: 30, tell: 60 }, other: { remind: 240, tell: 480 } }

/**
 * When a vendor who was asked is reminded, and when the desk hears that there is no answer: never later than the visit
 * begins, and the vendor before that.
 * @param calendar of the site; emergencies do not wait for its hours
 */
export function answerTimes(
  askedAt: Date,
  plannedStart: Date,
  priority: Priority | null,
  rules: VendorRules,
  calendar: WorkCalendar,
): { remindAt: Date; tellAt: Date } {
  const after = (minutes: number) => (priority === 'emergency' ? new Date(askedAt.getTime() + minutes * 60_000) : addWorkingTime(askedAt, minutes, calendar))
  const { remind, tell } = priority === 'emergency' ? rules.emergency : rules.other
  const tellAt = new Date(Math.max(askedAt.getTime(), Math.min(after(tell).getTime(), plannedStart.getTime())))
  // Where there is no time for all of it, the reminder stands in the middle of what there is.
  const latest = tellAt < after(tell) ? (askedAt.getTime() + tellAt.getTime()) / 2 : tellAt.getTime()
  return { remindAt: new Date(Math.min(after(remind).getTime(), latest)), tellAt }
}

/** Why this is no time to propose; empty when it is. */
export function proposalReasons(start: Date, end: Date, planned: { start: Date; end: Date }, now: Date): Reason[] {
  const reason = windowReason({ from: start, until: end }, now, 'end')
  if (reason) return [reason]
  if (start < now) return [{ code: 'in_the_past', sentence: 'Choose a time that has not passed.', field: 'start' }]
  if (start.getTime() === planned.start.getTime() && end.getTime() === planned.end.getTime())
    return [{ code: 'same_time', sentence: 'That is the time the desk has planned: accept it, or choose another.', field: 'start' }]
  return []
}
