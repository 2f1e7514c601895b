import type { Reason } from '#core/kit'

/** Leave somebody asks for: not decided, agreed, refused, or not wanted any more. */
export const LEAVE_ASK_STATES = ['asked', 'agreed', 'refused', 'withdrawn'] as const
export type LeaveAskState = (typeof LEAVE_ASK_STATES)[number]
export const LEAVE_ASK_NAMES: Record<LeaveAskState, string> = { asked: 'Asked', agreed: 'Agreed', refused: 'Refused', withdrawn: 'Taken back' }

const MOST_DAYS = 366
const FURTHEST_DAYS = 731
const daysFrom = (from: string, to: string) => (Date.parse(to) - Date.parse(from)) / 86_400_000

/** Why leave cannot be asked for; empty when it can. Days as ISO 8601, both of them included. @param today by the calendar of the site */
export function leaveReasons(from: string, until: string, today: string): Reason[] {
  if (until < from) return [{ code: 'backwards', sentence: 'It ends before it begins.', field: 'until' }]
  if (from < today) return [{ code: 'in_the_past', sentence: 'Ask for days that have not begun. The desk notes what was.', field: 'from' }]
  if (daysFrom(from, until) >= MOST_DAYS) return [{ code: 'too_long', sentence: 'Ask for a year at most.', field: 'until' }]
  if (daysFrom(today, from) > FURTHEST_DAYS) return [{ code: 'too_far', sentence: 'Ask for days within two years.', field: 'from' }]
  return []
}
