export const VISIT_KINDS = ['first', 'return', 'follow_up'] as const
export type VisitKind = (typeof VISIT_KINDS)[number]

export const VISIT_KIND_NAMES: Record<VisitKind, string> = {
  first: 'First visit',
  return: 'Return visit',
  follow_up: 'Follow-up',
}

/** How a visit ended. */
export const VISIT_RESULTS = ['done', 'return', 'part', 'handed_over'] as const
export type VisitResult = (typeof VISIT_RESULTS)[number]

export const VISIT_RESULT_NAMES: Record<VisitResult, string> = {
  done: 'Done',
  return: 'Needs a return visit',
  part: 'Waiting for a part',
  handed_over: 'Handed over',
}

/** A first visit, a return to unfinished work, or a follow-up of work that was once done. */
export function nextVisitKind(earlierVisits: number, onceDone: boolean): VisitKind {
  if (onceDone) return 'follow_up'
  return earlierVisits > 0 ? 'return' : 'first'
}
