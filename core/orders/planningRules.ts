/** What a part counts for: what is held of it, averaged as it moves, or what was paid for it last. */
export const COSTINGS = ['average', 'last'] as const
export type Costing = (typeof COSTINGS)[number]
export const COSTING_NAMES: Record<Costing, string> = { average: 'Moving average', last: 'Last price paid' }

/** What a site decides about planning. */
export interface PlanningRules {
  costing: Costing
  /** How far a plan may grow beyond what was agreed to before it is asked about again, in percent of that. */
  tolerancePercent: number
}
export const MOST_TOLERANCE = 500
/** Ten percent: our own choice, no source. */
export const USUAL_PLANNING: PlanningRules = { costing: 'average', tolerancePercent: 10 }

/** Whether what is planned comes to more than was agreed to, beyond what a site lets pass; minor units. */
export const hasOutgrown = (plannedMinor: number, agreedMinor: number, { tolerancePercent }: Pick<PlanningRules, 'tolerancePercent'>): boolean =>
  plannedMinor * 100 > agreedMinor * (100 + tolerancePercent)
