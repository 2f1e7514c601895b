/** What a part counts for: what is held of it, averaged as it moves, or what was paid for it last. */
export const COSTINGS = ['average', 'last'] as const
export type Costing = (typeof COSTINGS)[number]
export const COSTING_NAMES: Record<Costing, string> = { average: 'Moving average', last: 'Last price paid' }

/** What a site decides about planning. */
export interface PlanningRules {
  costing: Costing
  /** How far a plan may grow beyond what was agreed to before it is asked about again, in percent of that. */
  tolerancePercent: number
  /** Up to which cost technicians may start work on the spot that nobody has agreed to, in minor units; null where they may not. */
  onSpotMinor: number | null
}
export const MOST_TOLERANCE = 500
/** Ten percent, and what an hour or two cost: our own choice, no source. */
export const USUAL_PLANNING: PlanningRules = { costing: 'average', tolerancePercent: 10, onSpotMinor: 15_000 }

/** Whether what is planned comes to more than was agreed to, beyond what a site lets pass; minor units. */
export const hasOutgrown = (plannedMinor: number, agreedMinor: number, { tolerancePercent }: Pick<PlanningRules, 'tolerancePercent'>): boolean =>
  plannedMinor * 100 > agreedMinor * (100 + tolerancePercent)
