import { levelSaid, raisedByHazard } from './hazard'
import type { HazardSaid, HazardTable } from './hazard'
import { priorityOf } from './priority'
import type { Consequence, PriorityMatrix, PriorityVerdict, Urgency } from './priority'

/** What decides a priority, as far as it has been said. */
export interface PrioritySaid extends HazardSaid {
  consequence: Consequence | null
  urgency: Urgency | null
}

/** The priority of what has been said, hazard included; null while neither half of it is enough. */
export function prioritySaid(said: PrioritySaid, matrix: PriorityMatrix, hazards: HazardTable): PriorityVerdict | null {
  const { consequence, urgency } = said
  return raisedByHazard(consequence && urgency ? priorityOf(consequence, urgency, matrix) : null, levelSaid(said, hazards))
}
