export const VISIT_STATES = ['planned', 'on_site', 'ended', 'recalled'] as const
export type VisitState = (typeof VISIT_STATES)[number]

/** Somebody is still to come, or is there. */
export const LIVE_VISIT_STATES: VisitState[] = ['planned', 'on_site']
export function isLiveVisit(state: VisitState): boolean {
  return LIVE_VISIT_STATES.includes(state)
}

/** A vendor who came, or is there now, sends a bill. */
export function isBillable(visit: { vendorId: number | null; state: VisitState }): boolean {
  return visit.vendorId !== null && (visit.state === 'ended' || visit.state === 'on_site')
}
